import { dec } from '#core/base/decimal'
import type { LineWish } from '#core/order/change'
import type { Db } from '../server/db/client'
import { changeOrder } from '../server/order/change-order'
import { listStanding, type StandingRow } from '../server/order/change-reads'
import { listOrders } from '../server/order/list-orders'
import { findOrder } from '../server/order/reads'
import type { As } from './orders-to-decide'
import { personId } from './world/people'

const LEONIE = 'Leonie Farrow'
const as = (l: StandingRow, other: Partial<LineWish>): LineWish => ({
  ...{ lineId: l.id, quantity: l.quantity, unitPrice: l.unitPrice, needBy: l.needBy },
  ...other,
})

/** What was changed of orders after they were issued: fewer came of one, one is cancelled, one became dearer. */
const CHANGES: readonly {
  /** Whether it is about an order with these lines. */
  readonly fits: (lines: readonly StandingRow[]) => boolean
  readonly wishes: (lines: readonly StandingRow[]) => LineWish[]
  readonly reason: string
  readonly note: string
}[] = [
  {
    fits: ([first]) => first !== undefined && dec(first.quantity).gt(dec('3')),
    wishes: (lines) => lines.slice(0, 1).map((l) => as(l, { quantity: '3' })),
    reason: 'Three are enough until the spring',
    note: 'Please send the three by themselves.',
  },
  {
    fits: (lines) => lines.length === 1,
    wishes: (lines) => lines.map((l) => as(l, { quantity: '0' })),
    reason: 'It was found in the store of the harbour office',
    note: '',
  },
  {
    fits: ([first]) => first !== undefined && dec(first.unitPrice).gt(dec('20')),
    wishes: (lines) =>
      lines.slice(0, 1).map((l) => as(l, { unitPrice: dec(l.unitPrice).times(dec('1.3')).toPlaces(2).toFixed() })),
    reason: 'Their price has risen since the quote',
    note: '',
  },
]

/** Changes some of the newest orders, each another: what is ordered less is over, and the last waits to be decided. */
export async function changeSomeOrders(db: Db, doAs: As, at: Date): Promise<void> {
  const buyerId = personId(LEONIE)
  const { orders } = await doAs(buyerId, at, (ctx) =>
    listOrders(ctx, { whose: 'own', state: 'issued', words: '', limit: 50 }),
  )
  const left = orders.filter((o) => !o.isBlanket && o.calledFrom === null)
  for (const change of CHANGES) {
    for (const [i, order] of left.entries()) {
      const lines = await listStanding(db, order.id)
      if (!change.fits(lines)) continue
      left.splice(i, 1)
      const version = (await findOrder(db, order.id))?.version ?? 1
      const { reason, note } = change
      await doAs(buyerId, at, (ctx) =>
        changeOrder(ctx, order.id, version, {
          ...{ lines: change.wishes(lines), shipToId: null, rest: 'ends', reason, note, asks: true },
        }),
      )
      break
    }
  }
}
