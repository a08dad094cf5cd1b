import type { DecimalText } from '#core/base/decimal'
import { isZero, negate, type Money } from '#core/base/money'
import type { AdjustmentReason } from '#core/order/adjustment'
import type { Ways } from './ways'

/** An adjustment as it stands on an order, by tax. */
interface Laid {
  readonly kind: 'discount' | 'charge'
  readonly name: string
  readonly percent: DecimalText | null
  readonly base: Money
  readonly amount: Money
}

/** "Early order, 5 % of 1,200.00", or its name alone. */
const sayAdjustment = ({ name, percent, base }: Laid, ways: Ways): string =>
  percent === null ? name : `${name}, ${ways.decimal(percent)} % of ${ways.amount(base)}`

/** What it does to the sum: less than nothing where it is taken off. */
const signedAmount = ({ kind, amount }: Laid): Money => (kind === 'discount' ? negate(amount) : amount)

interface Parts {
  readonly goods: Money
  readonly adjustments: readonly Laid[]
  readonly freight: Money
}

/** What an order comes to before tax, row by row; none where its lines are all there is. */
export function rowsOfParts({ goods, adjustments, freight }: Parts, ways: Ways): { says: string; amount: Money }[] {
  const added = [
    ...adjustments.map((a) => ({ says: sayAdjustment(a, ways), amount: signedAmount(a) })),
    ...(isZero(freight) ? [] : [{ says: 'Freight', amount: freight }]),
  ]
  return added.length === 0 ? [] : [{ says: 'Goods', amount: goods }, ...added]
}

/** What is wrong with what is taken off an order, or put on it. */
export function sayAdjustmentReason(r: AdjustmentReason): string {
  switch (r.code) {
    case 'adjustment-unnamed':
      return 'What is taken off an order, or put on it, needs a name: its supplier reads it.'
    case 'adjustment-twice':
      return `Two that are taken off, or put on, are called “${r.name}”.`
    case 'adjustment-nothing':
      return 'What is taken off an order, or put on it, is more than 0.'
    case 'adjustment-above-all':
      return 'No more than 100 % is taken off.'
    case 'adjustment-too-fine':
      return `${r.currency} has no smaller parts: what is taken off an order, or put on it, is in whole ones.`
  }
}
