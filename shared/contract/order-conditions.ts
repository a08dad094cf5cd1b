import { z } from 'zod'
import { LONGEST_ADJUSTMENT, MOST_ADJUSTMENTS } from '#core/order/adjustment'
import { DELIVERY_TERMS, LONGEST_NUMBER } from '#core/order/conditions'
import { day, decimal, money, text } from './values'

/** What is taken off the whole of an order, or put on it: a percentage of its goods, or an amount in its currency. */
const orderAdjustment = z.object({
  kind: z.enum(['discount', 'charge']),
  of: z.enum(['percent', 'amount']),
  value: decimal,
  name: text(LONGEST_ADJUSTMENT),
})

export const orderAdjustments = z.array(orderAdjustment).max(MOST_ADJUSTMENTS).readonly()

/** The same as it stands, by tax. */
const laidAdjustment = z.object({
  kind: z.enum(['discount', 'charge']),
  name: z.string(),
  /** Of a percentage, which it is of what; `amount` is never less than nothing. */
  percent: z.string().nullable(),
  base: money,
  amount: money,
})
export type LaidAdjustment = z.infer<typeof laidAdjustment>

/** What an order comes to before tax, part by part: they add up to its net. */
export const partsOfNet = {
  /** The lines alone. */
  goods: money,
  adjustments: z.array(laidAdjustment),
  /** What bringing it costs. */
  freight: money,
}

/** On which conditions an order is placed. */
export const orderConditions = z.object({
  terms: z.object({ kind: z.enum(['net', 'month-end']), days: z.number().int().min(0).max(365) }),
  delivery: z.object({ term: z.enum(DELIVERY_TERMS), place: text(120) }).nullable(),
  expiresOn: day.nullable(),
  /** The number under which it was placed elsewhere; null: it is placed by this. */
  placedAs: text(LONGEST_NUMBER).nullable(),
  /** It goes to its supplier. */
  isSent: z.boolean(),
  /** It is called off a part at a time, until its last day. */
  isBlanket: z.boolean().default(false),
  adjustments: orderAdjustments.default([]),
})
