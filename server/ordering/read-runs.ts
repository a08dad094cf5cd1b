import { dayOf } from '#core/base/day'
import type { Reply } from '#shared/contract/all-routes'
import type { orderingRoutes, RunHead } from '#shared/contract/ordering'
import { sayRule } from '#shared/words/ordering'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { choicesOf, viewRun } from './read-rules'
import { findRule, findRun, listMadeOrders, listRuns } from './reads'
import { viewLeft } from './view-left'

/** The most runs that are shown. */
const MOST = 200

/** What was ordered by itself, run by run, the newest first. */
export async function readRuns(
  { tx }: Context,
  { rule }: { readonly rule?: string | undefined },
): Promise<{ runs: RunHead[]; isAll: boolean }> {
  const found = await listRuns(tx, rule ?? null, MOST + 1)
  return { runs: found.slice(0, MOST).map(viewRun), isAll: found.length <= MOST }
}

/** What a run made and left, and why; of documents, those that whoever reads may see. */
export async function readRun(ctx: Context, id: string): Promise<Reply<(typeof orderingRoutes)['readRun']>> {
  const run = await findRun(ctx.tx, id)
  const rule = run === null ? null : await findRule(ctx.tx, run.ruleId)
  if (run === null || rule === null) throw notFound('This run')
  const { baseCurrency, timeZone } = await requireOrganisation(ctx.tx)
  const choices = await choicesOf(ctx, [{ ...rule, form: run.form }])
  const lists = {
    kind: choices.kinds,
    department: choices.departments,
    category: choices.categories,
    supplier: choices.suppliers,
  }
  const nameOf = (of: keyof typeof lists, named: string) =>
    lists[of].find((x) => x.id === named)?.name ?? 'what is gone'
  return {
    ...viewRun(run),
    says: sayRule(run.form, nameOf, baseCurrency, waysOf(ctx.actor.locale)),
    orders: (await listMadeOrders(ctx.tx, id, ctx)).map((o) => ({
      ...o,
      requests: o.requests.toSorted((a, b) => a.number.localeCompare(b.number)),
    })),
    leftLines: await viewLeft(ctx, run.left, dayOf(ctx.now, timeZone)),
  }
}
