import { addDays } from '#core/base/day'
import type { LineWish } from '#core/order/change'
import type { OrderHead } from '#shared/contract/order'
import type { Db } from '../server/db/client'
import { takeAnswerIn } from '../server/order/answer-order'
import { listStanding, type StandingRow } from '../server/order/change-reads'
import { listOrders } from '../server/order/list-orders'
import { findOrder } from '../server/order/reads'
import { REKKO } from '../server/people/actor'
import type { As } from './orders-to-decide'
import { personId } from './world/people'

const LEONIE = 'Leonie Farrow'
/** So many of the newest orders nobody answered yet. */
const SILENT = 4
const DAY_MS = 24 * 3_600_000

/** What suppliers answered otherwise than ordered: one comes later, one cannot bring a line, one asks for more. */
const OTHERWISE: readonly {
  readonly fits: (lines: readonly StandingRow[]) => boolean
  readonly lines: (lines: readonly StandingRow[], today: string) => LineWish[]
  readonly by: string
  readonly note: string
}[] = [
  {
    fits: (lines) => lines.length === 1,
    lines: ([l], today) =>
      l === undefined ? [] : [as(l, { needBy: addDays(l.needBy > today ? l.needBy : today, 9) })],
    by: 'Marit, order desk',
    note: 'The ship with it is late.',
  },
  {
    fits: (lines) => lines.length > 1,
    lines: (lines) => lines.slice(-1).map((l) => as(l, { quantity: '0' })),
    by: 'Joel, sales',
    note: 'We do not make the last one any more; the others come as ordered.',
  },
]
const as = (l: StandingRow, other: Partial<LineWish>): LineWish => ({
  ...{ lineId: l.id, quantity: l.quantity, unitPrice: l.unitPrice, needBy: l.needBy },
  ...other,
})

/** Suppliers answer most of a buyer’s orders: as ordered a day after they had them, and two of the newest otherwise. */
export async function answerSomeOrders(db: Db, doAs: As, at: Date): Promise<void> {
  const buyerId = personId(LEONIE)
  const listed: OrderHead[] = []
  for (let after: string | undefined; ;) {
    const page = await doAs(buyerId, at, (ctx) =>
      listOrders(ctx, { whose: 'own', state: 'issued', words: '', limit: 50, after }),
    )
    listed.push(...page.orders)
    if (page.next === null) break
    after = page.next
  }
  const left = listed.filter((o) => !o.isChanging && o.isSent && o.state === 'issued')
  const answer = (order: OrderHead, when: Date, given: { by: string; note: string; lines: LineWish[] }) =>
    doAs(buyerId, when, async (ctx) => {
      const kept = await findOrder(ctx.tx, order.id, true)
      if (kept !== null)
        await takeAnswerIn({ ...ctx, actor: REKKO }, kept, { revision: kept.revision, ...given }, 'link')
    })
  const today = at.toISOString().slice(0, 10)
  for (const other of OTHERWISE)
    for (const [i, order] of left.entries()) {
      const lines = await listStanding(db, order.id)
      if (!other.fits(lines)) continue
      left.splice(i, 1)
      await answer(order, at, { by: other.by, note: other.note, lines: other.lines(lines, today) })
      break
    }
  for (const order of left.slice(SILENT)) {
    const next = new Date(Math.min(new Date(order.issuedAt).getTime() + DAY_MS, at.getTime()))
    await answer(order, next, { by: 'Order desk', note: '', lines: [] })
  }
}
