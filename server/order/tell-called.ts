import type { Money } from '#core/base/money'
import type { OrderDifference } from '#core/order/compare'
import { appendEvents } from '../audit/store'
import type { Context } from '../context'
import { tellEach } from '../document/tell'
import { notifyChanges } from '../live/notify'
import { findRequisitions, type RequisitionRow } from '../requisition/reads'
import { listServed, type OrderRow } from './reads'

/** Tells those whom a blanket order serves that a part of it was called off. */
export async function tellCalledOff(
  ctx: Context,
  blanket: OrderRow,
  of: { readonly id: string; readonly number: string; readonly net: Money },
): Promise<void> {
  const served = await findRequisitions(ctx.tx, await listServed(ctx.tx, blanket.id), false)
  const about = { number: of.number, blanket: blanket.number ?? '', supplier: blanket.supplier }
  await tellEach(
    ctx,
    eachOnce(served).map((r) => ({
      personId: whose(r),
      about: r.isDirect ? blanket : r,
      told: { code: 'called-off', by: ctx.actor.name, ...about, amount: of.net },
      path: `/orders/${of.id}`,
    })),
  )
  const asked = served.filter((r) => !r.isDirect)
  await appendEvents(
    ctx,
    asked.map((r) => ({ type: 'called off', subjectKind: 'requisition', subjectId: r.id, after: about })),
  )
  await notifyChanges(
    ctx.tx,
    asked.map((r) => ({ kind: 'requisition', id: r.id })),
  )
}

/** Tells them that a call-off became another, or is cancelled. */
export async function tellCallChanged(
  ctx: Context,
  callOff: OrderRow,
  differences: readonly OrderDifference[],
): Promise<void> {
  if (callOff.blanketId === null || differences.length === 0) return
  const served = await findRequisitions(ctx.tx, await listServed(ctx.tx, callOff.blanketId), false)
  const { number, supplier } = callOff
  await tellEach(
    ctx,
    eachOnce(served).map((r) => ({
      personId: whose(r),
      about: r.isDirect ? callOff : r,
      told: {
        ...({ code: 'order-changed', by: ctx.actor.name, number: r.number, title: r.title } as const),
        ...{ order: number ?? '', supplier, differences, rest: null },
      },
      path: `/orders/${callOff.id}`,
    })),
  )
}

const whose = (r: RequisitionRow): string => (r.isDirect ? r.raisedById : r.ownerId)

/** One requisition of each person: nobody is told twice of one call-off. */
const eachOnce = (served: readonly RequisitionRow[]): RequisitionRow[] => [
  ...new Map(served.map((r) => [whose(r), r] as const)).values(),
]
