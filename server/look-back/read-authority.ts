import { authorityOn, type Authority } from '#core/look-back/authority'
import { rewind } from '#core/look-back/rewind'
import { dayOf, fiscalPeriod, type Day } from '#core/base/day'
import type { ListName, Values } from '#core/lists/list'
import type { Absence } from '#core/people/person'
import type { AuthorityView } from '#shared/contract/look-back'
import { sayAuthority } from '#shared/words/authority'
import { findVersion } from '../approval/reads'
import type { Context } from '../context'
import { asSheet, type SheetFile } from '../files/as-sheet'
import type { Cell } from '../files/write-sheet'
import { invalid } from '../http/problem'
import { KEEPERS } from '../lists/keepers'
import { LIST_SUBJECTS } from '../lists/list-event'
import { listAllAbsences } from '../people/absence-reads'
import { requireOrganisation } from '../settings/reads'
import { findNumberHeld, listAbsencesMoved, listWritten } from './authority-reads'

interface OnADay {
  readonly rows: readonly Authority[]
  readonly policy: { readonly number: number; readonly name: string } | null
  /** Lists that a long file changed since: what it brought is not looked through. */
  readonly notSeen: readonly ListName[]
}

/**
 * Who could decide what at the end of a day: the lists of today less what was written since, the version of the policy
 * that held, and the absences that had been said.
 */
async function workOut(ctx: Context, day: Day): Promise<OnADay> {
  const { tx, now } = ctx
  const { timeZone, fiscalStartMonth } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  if (day > today) throw invalid('This day is still to come.', [{ field: 'day', message: 'is still to come' }])
  const notSeen: ListName[] = []
  const then = async (list: ListName): Promise<Map<string, Values>> => {
    const entries = await KEEPERS[list].read(tx, today)
    const { changes, isLong } = await listWritten(tx, LIST_SUBJECTS[list], day, timeZone)
    if (isLong) notSeen.push(list)
    return rewind(new Map(entries.map((e) => [e.id, e.values])), changes)
  }
  const number = await findNumberHeld(tx, day, timeZone)
  const version = number === null ? null : await findVersion(tx, number, day)
  const rows = authorityOn({
    ...{ day, fiscalYear: fiscalPeriod(day, fiscalStartMonth).year },
    people: await then('people'),
    limits: await then('limits'),
    roles: await then('roles'),
    departments: await then('departments'),
    budgetLines: await then('budget-lines'),
    policy: version?.form ?? { rules: [], fallbackId: null },
    absences: await absencesOn(ctx, day, timeZone),
  })
  return { rows, notSeen, policy: version === null ? null : { number: version.number, name: version.form.name } }
}

/** The absences that had been said by the end of a day and were not taken back by then. */
async function absencesOn({ tx }: Context, day: Day, timeZone: string): Promise<Absence[]> {
  const kept = new Map((await listAllAbsences(tx, day)).map((a) => [a.id, a as Absence]))
  for (const { id, said, before } of await listAbsencesMoved(tx, day, timeZone))
    if (said) kept.delete(id)
    else if (before !== null) kept.set(id, before as unknown as Absence)
  return [...kept.values()]
}

/** Who could decide what on a day; the last is today. */
export async function readAuthority(ctx: Context, asked: Day | undefined): Promise<AuthorityView> {
  const { baseCurrency, timeZone } = await requireOrganisation(ctx.tx)
  const day = asked ?? dayOf(ctx.now, timeZone)
  const { rows, policy, notSeen } = await workOut(ctx, day)
  return {
    ...{ day, currency: baseCurrency, policy, notSeen: [...notSeen] },
    people: rows.map(({ reasons, away, ...a }) => ({
      ...a,
      reasons: reasons.map((r) => sayAuthority(r)),
      away: away === null ? null : [...away.substitutes],
      decides: reasons.length > 0,
    })),
  }
}

/** The same as a file, with plain decimals. */
export async function exportAuthority(ctx: Context, day: Day, as: 'csv' | 'xlsx'): Promise<SheetFile> {
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  const { rows } = await workOut(ctx, day)
  const amount = (text: string): Cell => (text === '' ? null : { decimal: text })
  const head = [
    ...['Day', 'Person', 'What they do', 'Department', 'Decides up to', 'Orders up to', 'Currency', 'Asked because'],
    'Away; instead',
  ]
  const cells = rows.map((r): Cell[] => [
    ...[day, r.name, r.jobTitle, r.department, amount(r.decidingLimit), amount(r.orderingLimit), baseCurrency],
    ...[r.reasons.map(sayAuthority).join('; '), r.away === null ? '' : r.away.substitutes.join(', ') || 'nobody'],
  ])
  return asSheet({ name: 'Authority', head, rows: cells }, `authority-${day}`, as)
}
