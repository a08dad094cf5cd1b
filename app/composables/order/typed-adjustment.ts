import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'
import type { OrderAdjustment } from '#core/order/adjustment'

/** What is taken off an order, or put on it, as it is typed. */
export interface TypedAdjustment extends Pick<OrderAdjustment, 'kind' | 'of' | 'name'> {
  readonly key: string
  value: string
  kind: OrderAdjustment['kind']
  of: OrderAdjustment['of']
  name: string
}

/** What is kept, to be typed on, with its numbers as their reader writes them. */
export const typedOf = (
  kept: readonly OrderAdjustment[],
  wording: { readonly decimal: (value: string) => string; readonly price: (value: string, currency: string) => string },
  currency: string,
): TypedAdjustment[] =>
  kept.map(({ kind, of, value, name }) => ({
    ...{ key: crypto.randomUUID(), kind, of, name },
    value: of === 'percent' ? wording.decimal(value) : wording.price(value, currency),
  }))

/** How much was typed; null where that is no number above 0. */
function valueOf(typed: string, mark: '.' | ','): string | null {
  const read = readTypedNumber(typed, mark)
  return read !== null && dec(read).isPositive() ? read : null
}

/** What was typed, to be kept. */
export const readAdjustments = (rows: readonly TypedAdjustment[], mark: '.' | ','): OrderAdjustment[] =>
  rows.map(({ kind, of, value, name }) => ({ kind, of, value: valueOf(value, mark) ?? '0', name }))

/** What is missing, row by row: where, and what it is called. */
export const missingOf = (rows: readonly TypedAdjustment[], mark: '.' | ','): { at: string; says: string }[] =>
  rows.flatMap((row, i) => [
    ...(valueOf(row.value, mark) === null
      ? [{ at: `adjustment-value-${i}`, says: 'how much is taken off or put on' }]
      : []),
    ...(row.name.trim() === '' ? [{ at: `adjustment-name-${i}`, says: 'what that is for' }] : []),
  ])
