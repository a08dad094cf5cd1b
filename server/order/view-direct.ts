import type { DirectOrder } from '#shared/contract/order'
import type { Context } from '../context'
import { listAttachments, viewAttachment } from '../document/reads'
import { listDepartments } from '../people/place-reads'
import { findRequisitions } from '../requisition/reads'
import type { OrderRow } from './reads'

/** What a direct order says besides its lines, as a request for them would; null of an order for requests. */
export async function viewDirect({ tx }: Context, order: OrderRow): Promise<DirectOrder | null> {
  const [asks] = order.directFor === null ? [] : await findRequisitions(tx, [order.id], false)
  if (order.directFor === null || asks === undefined) return null
  const { why, justification, overBudgetReason, departmentId } = asks.draft
  const department = (await listDepartments(tx)).find((d) => d.id === departmentId)
  return {
    ...{ for: order.directFor.name, title: asks.sentDraft?.title ?? '', department: department?.name ?? '' },
    ...{ why, justification, overBudgetReason },
    attachments: (await listAttachments(tx, order.id)).map(viewAttachment),
  }
}
