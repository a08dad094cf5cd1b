import { randomBytes } from 'node:crypto'
import pg from 'pg'
import { describe, expect, inject, test } from 'vitest'
import { dayOf } from '#core/base/day'
import { loadDemo } from '../../demo/load-demo'
import { OPEN_NEEDS, PANEL } from '../../demo/world/needs'
import { personId } from '../../demo/world/people'
import { listBudgets } from '../../server/budget/list-budgets'
import type { Context } from '../../server/context'
import { openDatabase, type Db } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'
import { readDesk } from '../../server/order/read-desk'
import { findActor } from '../../server/people/actor-reads'
import { listSlips } from '../../server/decide/reads'
import { readMine } from '../../server/requisition/read-mine'

/** Hours and days at which a world that counts back from its moment could come out otherwise. */
const MOMENTS = [
  ['midnight in summer', '2026-07-14T23:00:00Z'],
  ['three in the morning', '2026-11-26T03:00:00Z'],
  ['a minute before midnight', '2026-11-26T23:59:00Z'],
  ['25 minutes past midnight', '2026-11-26T00:25:00Z'],
  ['a Sunday', '2026-10-11T11:00:00Z'],
  ['the last day of a fiscal year', '2027-03-31T12:00:00Z'],
  ['the first day of a fiscal year', '2027-04-01T12:00:00Z'],
  ['the first minute of a fiscal year', '2027-03-31T23:00:30Z'],
  ['29 February', '2028-02-29T15:30:00Z'],
  ['31 December', '2026-12-31T16:00:00Z'],
  ['the hour that is left out', '2027-03-28T01:30:00Z'],
  ['the hour that comes twice', '2026-10-25T01:30:00Z'],
] as const
async function withWorld(now: Date, look: (db: Db) => Promise<void>): Promise<void> {
  const { urls } = inject('cluster')
  const name = `world_${process.pid}_${randomBytes(4).toString('hex')}`
  const admin = new pg.Client({ connectionString: urls.postgres.replace(/DATABASE$/, 'postgres') })
  await admin.connect()
  await admin.query(`create database "${name}" owner rekko_owner template "empty" strategy file_copy`)
  const url = urls.rekko_app.replace(/DATABASE$/, name)
  Object.assign(process.env, {
    DATABASE_URL: url,
    REKKO_SESSION_SECRET: 'a-secret-for-tests-that-is-long-enough',
    REKKO_ROOT: process.cwd(),
    REKKO_DEMO: '1',
  })
  await loadDemo(url, now, 16, false)
  const { db, pool } = openDatabase(url, 2)
  try {
    await look(db)
  } finally {
    await pool.end()
    await admin.query(`drop database "${name}" with (force)`)
    await admin.end()
  }
}

describe.each(MOMENTS)('the demo at %s', (_, iso) => {
  test('Desk, Decide, Mine and Budgets hold what is meant to be there', async () => {
    const now = new Date(iso)
    await withWorld(now, async (db) => {
      const as = <T>(name: string, work: (ctx: Context) => Promise<T>): Promise<T> =>
        inTransaction(db, async (tx) => {
          const actor = await findActor(tx, personId(name), now)
          if (actor === null) throw new Error(`${name} is gone`)
          return work({ tx, now, actor })
        })
      const left = (leave: string) => OPEN_NEEDS.filter((n) => n.leave === leave)

      const desk = await as('Leonie Farrow', (ctx) => readDesk(ctx, 500))
      const approved = left('approved').reduce((n, need) => n + need.lines.length, 0)
      expect(desk.lines.filter((l) => /Circulation pump/.test(l.description))).toHaveLength(1)
      expect(desk.lines.length).toBeGreaterThanOrEqual(approved - 1)
      // One lies on an order that waits for whoever decides on it.
      expect(desk.trays.map((t) => [t.state, t.waits, t.lines[0]?.description])).toEqual([
        ['in approval', ['Harriet Voss'], PANEL],
      ])

      const slips = await as('Ines Adeyemi', ({ tx, actor }) => listSlips(tx, actor.id))
      // The filter bags are within the own limit of whoever asks for them.
      const hers = left('waiting').filter((n) => n.department === 'Water Systems' && n.title !== 'Filter bags')
      expect(slips.map((s) => s.title)).toEqual(expect.arrayContaining(hers.map((n) => n.title)))

      const mine = await as('Owen Marsh', (ctx) => readMine(ctx, { view: 'all', words: '', limit: 100 }))
      const his = OPEN_NEEDS.filter((n) => n.by[0] === 'Owen Marsh' && n.by.length === 1)
      expect(mine.rows.map((r) => r.title)).toEqual(expect.arrayContaining(his.map((n) => n.title)))
      expect(mine.rows.filter((r) => Date.parse(r.since) > now.getTime())).toEqual([])

      const budgets = await as('Tomas Brandt', (ctx) => listBudgets(ctx, undefined))
      expect(budgets.lines.length).toBeGreaterThan(5)
      const year =
        Number(dayOf(now, 'Europe/London').slice(0, 4)) - (dayOf(now, 'Europe/London').slice(5, 7) < '04' ? 1 : 0)
      expect(budgets.year).toBe(year)
      const before = await as('Tomas Brandt', (ctx) => listBudgets(ctx, year - 1))
      const touched = [...budgets.lines, ...before.lines].filter((l) => Number(l.reserved.amount) > 0)
      expect(touched.map((l) => l.name)).toContain('Pumps and filters')
    })
  })
})
