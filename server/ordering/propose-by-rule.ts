import { dayOf } from '#core/base/day'
import type { Money } from '#core/base/money'
import { isCovered, whyNotMade, whyTooLarge, type OrderingForm } from '#core/order/by-itself'
import type { OpenLine } from '#core/order/consolidate'
import type { ProposedOrder } from '#core/order/propose'
import { branchesOf } from '#core/people/branch'
import { listAgreementItems } from '../agreement/reads'
import { listCategories } from '../catalogue/reads'
import type { Context } from '../context'
import type { RunLeft } from '../db/schema/ordering'
import { computeProposal, openLineOf, type ComputedProposal } from '../order/compute-proposal'
import { listOpenLines, type OpenLineRow } from '../order/proposal-reads'
import { partOf } from '#core/people/rights'
import { reachPeople } from '../people/person-reads'
import { listUpward } from '../people/place-reads'
import { requireOrganisation } from '../settings/reads'

/** What a rule would order of what waits, before anything is asked of issuing. */
export interface RuleProposal {
  readonly computed: ComputedProposal
  readonly orders: readonly ProposedOrder[]
  readonly left: readonly RunLeft[]
}

type Covers = (row: OpenLineRow, line: OpenLine) => boolean

/** Which lines a rule covers. */
async function coverOf({ tx }: Context, form: OrderingForm): Promise<Covers> {
  const departments = branchesOf(await listUpward(tx))
  const categories = branchesOf(await listCategories(tx))
  return (row, line) =>
    isCovered(
      {
        ...line,
        kind: row.kindCode,
        branch: departments.get(row.departmentId) ?? [row.departmentId],
        categories: row.categoryId === null ? [] : (categories.get(row.categoryId) ?? [row.categoryId]),
      },
      form,
    )
}

/** Puts together what a rule covers of what waits in its buyer's part, who is the actor. */
export async function proposeByRule(ctx: Context, form: OrderingForm): Promise<RuleProposal> {
  const covers = await coverOf(ctx, form)
  const limit = await limitOf(ctx)
  const large = await leaveLarge(ctx, form, limit, covers)
  const tooLarge = new Set(large.map((l) => l.lineId))
  const computed = await computeProposal(ctx, form, (row, line) => !tooLarge.has(row.id) && covers(row, line))
  const { proposal, baseCurrency, perBase } = computed
  const agreed = await agreedPrices(ctx, proposal.orders)
  const agreedPrice = (a: string, item: string) => agreed.get(`${a} ${item}`) ?? null
  const facts = { limit, baseCurrency, perBase, agreedPrice }
  const orders: ProposedOrder[] = []
  const left: RunLeft[] = [
    ...proposal.left.map(({ line, reason }) => ({ lineId: line.requisitionLineId, reason })),
    ...large,
  ]
  for (const order of proposal.orders) {
    const reason = whyNotMade(order, form, facts)
    if (reason === null) orders.push(order)
    else left.push(...leaveAll(order, reason))
  }
  return { computed, orders, left }
}

/** What is left because its request alone comes to more than may be ordered by itself. */
async function leaveLarge(ctx: Context, form: OrderingForm, limit: Money | null, covers: Covers): Promise<RunLeft[]> {
  const { proposal, ...facts } = await computeProposal(ctx, { ...form, mostRequests: 1, waitFor: null }, covers)
  return proposal.orders.flatMap((order) => {
    const reason = whyTooLarge(order, form, { ...facts, limit })
    return reason === null ? [] : leaveAll(order, reason)
  })
}

/** The most that the actor may order alone, in the base currency. */
async function limitOf({ tx, now, actor }: Context): Promise<Money | null> {
  const { baseCurrency, timeZone } = await requireOrganisation(tx)
  const { people } = await reachPeople(tx, [actor.id], baseCurrency, dayOf(now, timeZone))
  return people.find((p) => p.id === actor.id)?.orderingLimit ?? null
}

/** All lines of an order, left for one reason. */
export const leaveAll = (order: ProposedOrder, reason: RunLeft['reason']): RunLeft[] =>
  order.parts.map((p) => ({ lineId: p.requisitionLineId, reason }))

/** Whether a rule may cover something of a requisition, on whichever agreement it draws. */
export async function coversSome(ctx: Context, form: OrderingForm, requisitionId: string): Promise<boolean> {
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const rows = await listOpenLines(ctx.tx, partOf(ctx.actor.grants, 'order'), today, 1000, requisitionId)
  const covers = await coverOf(ctx, form)
  const agreementId = form.price === 'agreed' ? 'any' : null
  return rows.some((row) => covers(row, { ...openLineOf(row), agreementId }))
}

/** What agreements say that items cost, by the agreement's and the item's id. */
async function agreedPrices({ tx }: Context, orders: readonly ProposedOrder[]): Promise<Map<string, string>> {
  const found = new Map<string, string>()
  for (const id of new Set(orders.flatMap((o) => o.parts[0]?.agreementId ?? [])))
    for (const i of await listAgreementItems(tx, id))
      if (i.unitPrice !== null) found.set(`${id} ${i.itemId}`, i.unitPrice)
  return found
}
