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
}

/**
 * Works out what taking rows of cells would do; the same for the page that looks and under lock. Where it is not asked
 * what the rows do not name, of a list that may be long only the entries are read that the rows mean.
 */
export async function planGiven(
  ctx: Context,
  list: ListDefinition,
  given: GivenRows,
  asksGone: boolean,
): Promise<Planned> {
  const { timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  const { decimalMark: mark, monthFirst } = waysOf(ctx.actor.locale)
  const ways = { mark, monthFirst, today }
  const textsOf = (of: ListName) => textsIn(list, given.columns, given.cells, of)
  const isWhole = asksGone || KEEPERS[list.name].find === undefined
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
  return { plan: isWhole ? plan : { ...plan, gone: [] }, entries, today }
}

/** The entries that rows mean, by their key or by what else tells them apart. */
export const meantBy = (list: ListDefinition, rows: readonly ListRow[]): Meant => ({
  keys: rows.map((r) => keyOf(list, r.values)),
  others: rows.flatMap((r) => (isKeyless(list, r.values) ? (otherKeyOf(list, r.values) ?? []) : [])),
})

/** What a file would do, before anything is kept: counts, and the rows worth looking at. */
export async function planFile(ctx: Context, name: ListName, given: GivenRows): Promise<PlanView> {
  const list = requireList(ctx, name)
  const version = await findVersion(ctx.tx, name)
  const { plan, entries, today } = await planGiven(ctx, list, given, true)
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
      gone: plan.gone.length,
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
    gone: plan.gone.slice(0, MOST_SHOWN).map((g) => ({ ...g })),
  }
}
