import type { Subject } from '#core/approval/policy'
import { dayOf } from '#core/base/day'
import type { Money } from '#core/base/money'
import { orderSubject, whoseNeed } from '#core/order/subject'
import type { Judged } from '../approval/judge-again'
import { peopleNamedBy, requirePolicy } from '../approval/reads'
import type { Context } from '../context'
import { listBranch } from '../people/place-reads'
import { reachPeople } from '../people/person-reads'
import type { RequisitionRow } from '../requisition/reads'
import type { Organisation } from '../settings/reads'
import type { PlannedMoney } from './plan-money'
import { whoseOrder, type OrderRow } from './reads'

/** What an order, or its change, is judged by when it is sent to be decided on: its subject, the policy, the people. */
export async function judgeOrder(
  { tx, now }: Context,
  order: OrderRow,
  of: {
    readonly organisation: Organisation
    /** With freight, in the base currency. */
    readonly amount: Money
    readonly planned: PlannedMoney
    readonly served: readonly RequisitionRow[]
    /** The requisition lines that it serves. */
    readonly lineIds: readonly string[]
  },
): Promise<Judged & { readonly subject: Subject }> {
  const { baseCurrency, timeZone } = of.organisation
  const today = dayOf(now, timeZone)
  const policy = await requirePolicy(tx, now, today)
  const { budgetLines, passed } = of.planned
  const holders = [...budgetLines.values()].flatMap((l) => l.holderId ?? [])
  const { departmentId, ownerId = order.ownerId } = whoseOrder(order)
  const named = [...new Set([order.ownerId, ownerId, ...peopleNamedBy(policy), ...holders])]
  const { people, absences } = await reachPeople(tx, named, baseCurrency, today)
  const asked = new Map(of.served.flatMap((r) => r.lines.map((line) => [line.id, { r, line }] as const)))
  const parts = of.lineIds.flatMap((id) => asked.get(id) ?? [])
  const subject = orderSubject({
    buyer: { id: order.ownerId, orderingLimit: people.find((p) => p.id === order.ownerId)?.orderingLimit ?? null },
    owner: { id: ownerId, departmentId },
    isDirect: order.directFor !== null,
    branch: await listBranch(tx, departmentId),
    currency: order.currency,
    amount: of.amount,
    kinds: of.served.map((r) => r.draft.kind),
    needs: parts.map(({ r }) => whoseNeed(r)),
    parts: parts.map(({ line }) => ({ category: line.categoryId ?? null, codings: line.codings })),
    budgetLines,
    hasAgreement: order.agreementId !== null,
    overBudget: passed.length > 0,
  })
  return { subject, policy, people: { people: new Map(people.map((p) => [p.id, p])), absences, today } }
}
