import { dayOf } from '#core/base/day'
import type { ListDefinition, ListName } from '#core/lists/list'
import { planRows, type ListPlan } from '#core/lists/plan'
import { readRows } from '#core/lists/read-rows'
import type { GivenRows, PlanView } from '#shared/contract/lists'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { findDearer } from './dearer'
import type { KeptEntry } from './keeper'
import { KEEPERS } from './keepers'
import { knownOf, readNeighbours, type Neighbours } from './known-entries'
import { findVersion } from './list-store'
import { requireList } from './read-list'

/** Rows that a page shows of a plan; what is refused comes first. */
const MOST_SHOWN = 300

/** What taking rows would do, with what it was worked out from. */
export interface Planned {
  readonly plan: ListPlan
  readonly entries: readonly KeptEntry[]
  readonly neighbours: Neighbours
  readonly today: string
}

/** Works out what taking rows of cells would do; the same for the page that looks and under lock. */
export async function planGiven(ctx: Context, list: ListDefinition, given: GivenRows): Promise<Planned> {
  const { timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  const entries = await KEEPERS[list.name].read(ctx.tx, today)
  const neighbours = await readNeighbours(ctx.tx, list, entries, today)
  const { decimalMark: mark, monthFirst } = waysOf(ctx.actor.locale)
  const rows = readRows(list, given.columns, given.cells, { mark, monthFirst, today }, knownOf(neighbours))
  const current = entries.map((e) => e.values)
  return { plan: planRows(list, rows, current, today), entries, neighbours, today }
}

/** What a file would do, before anything is kept: counts, and the rows worth looking at. */
export async function planFile(ctx: Context, name: ListName, given: GivenRows): Promise<PlanView> {
  const list = requireList(ctx, name)
  const version = await findVersion(ctx.tx, name)
  const { plan, entries, today } = await planGiven(ctx, list, given)
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
