import { addDays, dayOf } from '#core/base/day'
import type { OrderHead, OrdersAsked } from '#shared/contract/order'
import type { Context } from '../context'
import { readPageMark } from '../db/page-mark'
import { asSheet } from '../files/as-sheet'
import type { Cell } from '../files/write-sheet'
import { beginOf } from '../settings/moment-of'
import { requireOrganisation } from '../settings/reads'
import { listOrderPage, type OrderQuery } from './page-reads'

/** The most orders that a file holds. */
const MOST_ROWS = 20_000

async function queryOf(ctx: Context, { from, until, ...asked }: OrdersAsked): Promise<OrderQuery> {
  const { timeZone } = await requireOrganisation(ctx.tx)
  return {
    ...asked,
    today: dayOf(ctx.now, timeZone),
    from: from === undefined ? null : beginOf(from, timeZone),
    until: until === undefined ? null : beginOf(addDays(until, 1), timeZone),
  }
}

/** Issued orders that the actor sees and asks for, newest first; a page after the key of the one before. */
export async function listOrders(
  ctx: Context,
  { after, limit, ...asked }: OrdersAsked & { readonly after?: string | undefined; readonly limit: number },
): Promise<{ orders: OrderHead[]; next: string | null }> {
  return listOrderPage(ctx.tx, ctx, await queryOf(ctx, asked), readPageMark(after), limit)
}

/** The same as a file, with exact moments and plain decimals. */
export async function exportOrders(
  ctx: Context,
  { as, ...asked }: OrdersAsked & { readonly as: 'csv' | 'xlsx' },
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const query = await queryOf(ctx, asked)
  const found: OrderHead[] = []
  for (let after: string | undefined; found.length < MOST_ROWS;) {
    const page = await listOrderPage(ctx.tx, ctx, query, readPageMark(after), 500)
    found.push(...page.orders)
    if (page.next === null) break
    after = page.next
  }
  const table = {
    name: 'Orders',
    head: [
      'Number',
      'Supplier',
      'Buyer',
      'State',
      'Issued at',
      'Revision',
      'Needed',
      'Sent',
      'Without tax',
      'Currency',
      'Last day',
      'Placed as',
      'Sort',
      'Called off of',
    ],
    rows: found.map((o): Cell[] => [
      ...[o.number, o.supplier, o.buyer, o.state, o.issuedAt, { decimal: String(o.revision) }, o.needBy ?? ''],
      ...[o.mailed ? 'yes' : '', { decimal: o.net }, o.currency, o.expiresOn ?? '', o.placedAs ?? ''],
      ...[o.isBlanket ? 'blanket order' : o.calledFrom === null ? '' : 'call-off', o.calledFrom ?? ''],
    ]),
  }
  return asSheet(table, 'orders', as)
}
