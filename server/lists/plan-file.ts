import { dayOf } from '#core/base/day'
import { isKeyless, keyOf, otherKeyOf, type ListDefinition, type ListName } from '#core/lists/list'
import { planRows, type ListPlan } from '#core/lists/plan'
import { readRows, type ListRow } from '#core/lists/read-rows'
import type { GivenRows, PlanView } from '#shared/contract/lists'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { findDearer } from './dearer'
import type { KeptEntry } from './keeper'
import { KEEPERS } from './keepers'
import { collectUnnamed } from './each-entry'
import { findEntries, type Meant } from './find-entries'
import { knownOf, readNeighbours, textsIn, withinOf } from './known-entries'
import { findVersion } from './list-store'
import { requireList } from './read-list'

/** Rows that a page shows of a plan; what is refused comes first. */
const MOST_SHOWN = 300

/** What taking rows would do, with what it was worked out from. */
export interface Planned {
  readonly plan: ListPlan
  readonly entries: readonly KeptEntry[]
  readonly today: string
  /** How many entries in use the rows do not name, and those of them that were asked for. */
  readonly goneCount: number
  readonly gone: readonly KeptEntry[]
}

/**
 * Works out what taking rows of cells would do; the same for the page that looks and under lock. Of a list that may be
 * long only the entries are read that the rows mean, and of what they do not name at most `mostGone` are kept.
 */
export async function planGiven(
  ctx: Context,
  list: ListDefinition,
  given: GivenRows,
  mostGone: number,
): Promise<Planned> {
  const { timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  const { decimalMark: mark, monthFirst } = waysOf(ctx.actor.locale)
  const ways = { mark, monthFirst, today }
  const textsOf = (of: ListName) => textsIn(list, given.columns, given.cells, of)
  const isWhole = KEEPERS[list.name].find === undefined
  const all = isWhole ? await KEEPERS[list.name].read(ctx.tx, today) : null
  const own = all ?? (await findEntries(ctx.tx, list, { keys: textsOf(list.name), others: [] }, today))
  const neighbours = await readNeighbours(ctx.tx, list, own, today, textsOf)
  const rows = readRows(list, given.columns, given.cells, ways, knownOf(neighbours))
  const entries = all ?? (await findEntries(ctx.tx, list, meantBy(list, rows), today))
  const plan = planRows(
    list,
    rows,
    entries.map((e) => e.values),
    today,
    withinOf(list, neighbours),
  )
  const named = new Set(plan.rows.map((r) => keyOf(list, r.after)))
  const gone = mostGone === 0 ? NONE : await collectUnnamed(ctx.tx, list, today, named, mostGone)
  return { plan, entries, today, goneCount: gone.count, gone: gone.entries }
}
const NONE = { count: 0, entries: [] }

/** The entries that rows mean, by their key or by what else tells them apart. */
export const meantBy = (list: ListDefinition, rows: readonly ListRow[]): Meant => ({
  keys: rows.map((r) => keyOf(list, r.values)),
  others: rows.flatMap((r) => (isKeyless(list, r.values) ? (otherKeyOf(list, r.values) ?? []) : [])),
})

/** What a file would do, before anything is kept: counts, and the rows worth looking at. */
export async function planFile(ctx: Context, name: ListName, given: GivenRows): Promise<PlanView> {
  const list = requireList(ctx, name)
  const version = await findVersion(ctx.tx, name)
  const { plan, entries, today, goneCount, gone } = await planGiven(ctx, list, given, MOST_SHOWN)
  const dearer = await findDearer(ctx.tx, list, plan, entries, today)
  const of = (does: ListPlan['rows'][number]['does']) => plan.rows.filter((r) => r.does === does)
  const shown = [...of('refused'), ...of('changes'), ...of('adds')].slice(0, MOST_SHOWN)
  return {
    version,
    counts: {
      adds: of('adds').length,
      changes: of('changes').length,
      nothing: of('nothing').length,
      refused: of('refused').length,
      gone: goneCount,
    },
    rows: shown.map((r) => ({
      at: r.at,
      does: r.does,
      before: r.before === null ? null : { ...r.before },
      after: { ...r.after },
      changed: [...r.changed],
      reasons: [...r.reasons],
      dearer: dearer.byRow.get(r.at) ?? null,
    })),
    dearer: dearer.sums.map((d) => ({ ...d })),
    gone: gone.map((g) => ({ ...g.values })),
  }
}
