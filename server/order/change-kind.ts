import { moneyOf } from '#core/base/money'
import { CHANGE_MOVES, isChangeMoveFrom } from '#core/order/change-moves'
import { sayChangeState } from '#shared/words/order-change'
import { decidePath, type ApprovalOutcome, type Decidable } from '../approval/decidable'
import { findRoute } from '../approval/reads'
import type { Context } from '../context'
import { setState } from '../document/store'
import { TAKE_BACK_SECONDS, tell } from '../document/tell'
import { enqueue } from '../queue/enqueue'
import { locksOf } from './buyers-document'
import { findChange, SEEN_CHANGES, type ChangeRow } from './change-reads'

/** Changes of orders as documents: who sees them, how they are locked, and how approval knows them. */
export const ORDER_CHANGE: Decidable<ChangeRow> = {
  name: 'order change',
  called: 'This change',
  ...SEEN_CHANGES,
  find: findChange,
  ...locksOf<ChangeRow>({
    called: 'This change',
    seen: SEEN_CHANGES,
    find: findChange,
    isFrom: isChangeMoveFrom,
    by: (move) => CHANGE_MOVES[move].by,
    sayState: (c) => `This change is ${sayChangeState(c.state)}.`,
    whyNotRejected: 'A change is approved or sent back; its buyer throws it away.',
  }),
  path: decidePath,
  changePath: decidePath,
  whose: (c) => ({ raisedById: c.ownerId, departmentId: c.buyerDepartmentId }),
  takeOutcome,
  // What is done to a change that was sent is an event of its own.
  wasActedOn: () => null,
  tellApproved: ({ by, comment, amount, title }) => ({
    told: { code: 'order-approved', by, comment, amount, title },
  }),
}

async function takeOutcome(ctx: Context, c: ChangeRow, outcome: ApprovalOutcome): Promise<void> {
  switch (outcome.state) {
    case 'waiting':
    case 'reopened':
      await setState(ctx.tx, c.id, 'in approval', ctx.now)
      return
    case 'stopped':
      await setState(ctx.tx, c.id, 'draft', ctx.now)
      return
    case 'approved':
      await setState(ctx.tx, c.id, 'approved', ctx.now)
      await goOn(ctx, c, outcome.decisionId)
  }
}

/** Once nobody is left to decide its buyer hears of it, and it is put in force by itself: nobody presses again. */
async function goOn(ctx: Context, c: ChangeRow, decisionId: string | null): Promise<void> {
  const route = await findRoute(ctx.tx, c.id)
  if (route === null) return
  // Whoever decided last tells of it themselves; where a step fell away, nobody did.
  if (decisionId === null) {
    const amount = moneyOf(route.amount, route.currency)
    const told = { code: 'order-approved', by: null, comment: '', amount, title: c.title } as const
    await tell(ctx, c.ownerId, c, told, { path: `/orders/${c.orderId}` })
  }
  const wait = decisionId === null ? 0 : TAKE_BACK_SECONDS + 1
  await enqueue(ctx.tx, 'put-change-in-force', { changeId: c.id, round: route.round, decisionId }, wait)
}
