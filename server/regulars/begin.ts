import { randomUUID } from 'node:crypto'
import { dayOf, fiscalPeriod, type Day } from '#core/base/day'
import { BLANK_DRAFT, BLANK_LINE, type Draft } from '#core/requisition/draft'
import { renewDraft } from '#core/requisition/renew'
import type { Beginning } from '#shared/contract/regulars'
import { listPriceSteps } from '../catalogue/reads'
import type { Context } from '../context'
import type { Tx } from '../db/client'
import { maySee } from '../document/visible'
import { notFound } from '../http/problem'
import { findRequisition } from '../requisition/reads'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { listOpenDepartments } from '../people/place-reads'
import { requireOrganisation } from '../settings/reads'
import { asLine, listOrderLinesToTake } from './old-line-reads'
import { findBudgetLinesOfYear, readSupplierNames } from './template-reads'
import { requireTemplate } from './templates'

/** A draft that was written before, made fit for today. */
export async function renewed(tx: Tx, draft: Draft, today: Day, fiscalStartMonth: number): Promise<Draft> {
  const { year } = fiscalPeriod(today, fiscalStartMonth)
  return renewDraft(draft, {
    today,
    newId: randomUUID,
    prices: await listPriceSteps(tx, [...new Set(draft.lines.flatMap((l) => l.itemId ?? []))]),
    budgetLines: await findBudgetLinesOfYear(
      tx,
      [...new Set(draft.lines.flatMap((l) => l.codings.map((c) => c.budgetLineId)))],
      year,
    ),
  })
}

/** A draft to begin from a template that one may use. */
export async function beginFromTemplate(ctx: Context, id: string): Promise<Beginning> {
  return begin(ctx, (await requireTemplate(ctx, id)).draft)
}

/** A draft to begin from a requisition that one sees; it becomes one's own, for a department open to one. */
export async function beginFromRequisition(ctx: Context, id: string): Promise<Beginning> {
  const kept = await findRequisition(ctx.tx, id)
  if (kept === null || !(await maySee(ctx, SEEN_REQUISITIONS, id))) throw notFound('This requisition')
  return begin(ctx, kept.draft)
}

/** A draft to begin from the lines of an order that one sees. What pays is chosen anew. */
export async function beginFromOrder(ctx: Context, id: string): Promise<Beginning> {
  const lines = await listOrderLinesToTake(ctx.tx, ctx, [], '', 1, id)
  const [first] = lines
  if (first === undefined) throw notFound('This order')
  return begin(ctx, {
    ...BLANK_DRAFT,
    lines: lines.map((l) => ({ ...BLANK_LINE, ...asLine(l), id: randomUUID() })),
  })
}

async function begin(ctx: Context, from: Draft): Promise<Beginning> {
  const { timeZone, fiscalStartMonth } = await requireOrganisation(ctx.tx)
  const draft = await renewed(ctx.tx, from, dayOf(ctx.now, timeZone), fiscalStartMonth)
  const open = await listOpenDepartments(ctx.tx, ctx.actor.id)
  const department = open.find((d) => d.id === draft.departmentId) ?? open[0]
  const moved = department?.id !== draft.departmentId
  const fit: Draft = {
    ...draft,
    departmentId: department?.id ?? null,
    shipToId:
      moved || (draft.shipToId === null && draft.address === null)
        ? (department?.usualShipToId ?? null)
        : draft.shipToId,
    address: moved ? null : draft.address,
    noteInternal: moved ? '' : draft.noteInternal,
    lines: moved ? draft.lines.map((l) => ({ ...l, codings: [], noteInternal: '' })) : draft.lines,
  }
  return {
    draft: { ...fit, readWarnings: [], lines: fit.lines.map((l) => ({ ...l, codings: [...l.codings] })) },
    suppliers: await readSupplierNames(ctx.tx, [...new Set(fit.lines.flatMap((l) => l.supplierId ?? []))]),
  }
}
