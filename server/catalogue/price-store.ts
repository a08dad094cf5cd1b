import { and, eq, gte, isNull, lt, or, sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { readOne } from '../db/read'
import { item, itemPrice } from '../db/schema/catalogue'

/** Locks an item, so that its prices change one after the other; false where there is none. */
export async function lockItem(tx: Tx, id: string): Promise<boolean> {
  return (await readOne(tx, { id: item.id }, sql`from ${item} where ${item.id} = ${id} for no key update`)) !== null
}

/** Ends what holds on the day before, takes away what was to begin from then on, and writes new steps. */
export async function writePricesFrom(
  tx: Tx,
  itemId: string,
  from: Day,
  dayBefore: Day,
  steps: readonly { readonly from: DecimalText; readonly unitPrice: DecimalText }[],
): Promise<void> {
  const of = eq(itemPrice.itemId, itemId)
  await tx.delete(itemPrice).where(and(of, gte(itemPrice.validFrom, from)))
  await tx
    .update(itemPrice)
    .set({ validUntil: dayBefore })
    .where(
      and(
        of,
        or(isNull(itemPrice.validFrom), lt(itemPrice.validFrom, from)),
        or(isNull(itemPrice.validUntil), gte(itemPrice.validUntil, from)),
      ),
    )
  await tx
    .insert(itemPrice)
    .values(steps.map((s) => ({ itemId, fromQuantity: s.from, unitPrice: s.unitPrice, validFrom: from })))
}
