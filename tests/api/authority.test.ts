import { afterAll, beforeAll, expect, test } from 'vitest'
import { addDays } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import { recogniseColumns } from '#core/lists/read-rows'
import type { Context } from '../../server/context'
import { keepRows } from '../../server/lists/keep-list'
import { readList } from '../../server/lists/read-list'
import { exportAuthority, readAuthority } from '../../server/look-back/read-authority'
import { endAway, setAway } from '../../server/people/set-away'
import { reachPeople } from '../../server/people/person-reads'
import { moment, personId, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

const in_ = (days: number) => new Date(moment().getTime() + days * 86_400_000)
/** Signe Aalto looks back a week from now. */
const on = (days: number) => rekko.as('Signe Aalto', (ctx) => readAuthority(ctx, addDays(TODAY, days)), in_(7))
const of = async (name: string, days: number) => (await on(days)).people.find((p) => p.name === name)
const email = (name: string) => `${name.toLowerCase().replace(/ /g, '.')}@hallamere.example`
async function keep(ctx: Context, list: 'people' | 'limits', head: string[], cells: string[][]): Promise<void> {
  const { version } = await readList(ctx, list, '')
  const columns = recogniseColumns(LISTS[list], head)
  await keepRows(ctx, list, version, { columns, cells, source: '', gone: 'keep' })
}

test('today it says what routes are made from, for everybody', async () => {
  const { people } = await rekko.as('Signe Aalto', (ctx) => readAuthority(ctx, undefined))
  expect(people.length).toBeGreaterThan(8)
  const ids = people.map((p) => p.personId)
  const facts = await rekko.as('Signe Aalto', (ctx) => reachPeople(ctx.tx, ids, 'EUR', TODAY))
  for (const p of people) {
    const kept = facts.people.find((x) => x.id === p.personId)
    const shown = kept?.decidingLimit == null ? '' : Number(kept.decidingLimit.amount)
    expect([p.name, p.decidingLimit === '' ? '' : Number(p.decidingLimit)]).toEqual([kept?.name, shown])
  }
  const tomas = people.find((p) => p.name === 'Tomas Brandt')
  expect(tomas?.reasons.join()).toMatch(/manages .*holds /)
  expect(people.find((p) => p.name === 'Marguerite Oduya')?.reasons).toContain('decides in the end')
  expect(people.some((p) => p.name === 'Signe Aalto')).toBe(false)
})

test('what changed since is not there yet on the days before: limits, managers, absences', async () => {
  const before = await of('Ines Adeyemi', 0)
  await rekko.as(
    'Harriet Voss',
    (ctx) => keep(ctx, 'people', ['E-mail', 'Limit for deciding'], [[email('Ines Adeyemi'), '7777']]),
    in_(2),
  )
  await rekko.as(
    'Harriet Voss',
    (ctx) => keep(ctx, 'people', ['E-mail', 'Manager'], [[email('Owen Marsh'), email('Tomas Brandt')]]),
    in_(5),
  )
  expect((await of('Ines Adeyemi', 1))?.decidingLimit).toBe(before?.decidingLimit)
  expect(Number((await of('Ines Adeyemi', 2))?.decidingLimit)).toBe(7777)
  const managed = async (days: number) => (await of('Ines Adeyemi', days))?.reasons.join() ?? ''
  expect(await managed(4)).toBe(await managed(0))
  expect(await managed(5)).not.toBe(await managed(4))
})

test('an absence that was said, and taken back, stood in between', async () => {
  const { id } = await rekko.as(
    'Ines Adeyemi',
    (ctx) =>
      setAway(ctx, {
        ...{ personId: personId('Ines Adeyemi'), from: addDays(TODAY, 1), until: addDays(TODAY, 20) },
        ...{ substituteId: personId('Greta Molin'), note: '' },
      }),
    in_(2),
  )
  await rekko.as('Ines Adeyemi', (ctx) => endAway(ctx, id, 1), in_(4))
  const away = async (days: number) => (await of('Ines Adeyemi', days))?.away ?? null
  // On the first day nobody had said it yet.
  expect([await away(1), await away(2), await away(3), await away(4)]).toEqual([
    null,
    ['Greta Molin'],
    ['Greta Molin'],
    null,
  ])
  expect((await of('Greta Molin', 3))?.reasons.join()).toMatch(/stands in for Ines Adeyemi/)
})

test('as a file, and never of a day to come; before there was a policy nobody is asked', async () => {
  const file = await rekko.as('Signe Aalto', (ctx) => exportAuthority(ctx, TODAY, 'csv'))
  expect(file.bytes.toString('utf8')).toMatch(/Tomas Brandt/)
  await expect(rekko.as('Signe Aalto', (ctx) => readAuthority(ctx, addDays(TODAY, 1)))).rejects.toThrow(/still to come/)
  const early = await rekko.as('Signe Aalto', (ctx) => readAuthority(ctx, '1995-01-01'))
  expect([early.policy, early.people.filter((p) => p.decides)]).toEqual([null, []])
})
