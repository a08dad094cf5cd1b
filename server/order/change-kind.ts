import { CHANGE_MOVES, isChangeMoveFrom } from '#core/order/change-moves'
import { sayChangeState } from '#shared/words/order-change'
import { decidePath, type Decidable } from '../approval/decidable'
import { enqueue } from '../queue/enqueue'
import { locksOf, outcomesOf } from './buyers-document'
import { findChange, SEEN_CHANGES, type ChangeRow } from './change-reads'
import { whoseOrder } from './reads'

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
  whose: whoseOrder,
  takeOutcome: outcomesOf<ChangeRow>({
    pageFor: (c) => `/orders/${c.orderId}`,
    // It is made by itself: nobody presses again.
    goOn: ({ tx }, c, of, seconds) => enqueue(tx, 'put-change-in-force', { changeId: c.id, ...of }, seconds),
  }),
  // What is done to a change that was sent is an event of its own.
  wasActedOn: () => null,
  tellApproved: ({ by, comment, amount, title }) => ({
    told: { code: 'order-approved', by, comment, amount, title },
  }),
}
