import { z } from 'zod'
import { money } from './values'

const offer = z.object({
  ...{ itemId: z.string(), number: z.string(), name: z.string(), supplierPart: z.string() },
  ...{ supplierId: z.string(), supplier: z.string() },
  ...{ unit: z.string(), priceBase: z.string(), currency: z.string() },
  /** At what is open of the line. */
  unitPrice: z.string().nullable(),
  net: money.nullable(),
  /** What the next step of its price would make of it. */
  next: z.object({ more: z.string(), at: z.string(), price: z.string(), net: money }).nullable(),
  /** What bringing it costs, were it ordered alone. */
  freight: money.nullable(),
  /** The value of goods that its supplier takes an order for, where this alone does not reach it. */
  minimum: money.nullable(),
  /** In so many business days, and on which day that is, ordered today. */
  leadDays: z.number(),
  arrives: z.string(),
  isLate: z.boolean(),
  /** What comes by the pack and does not come out even: how many there would have to be. */
  packs: z.object({ size: z.string(), packs: z.string(), holds: z.string() }).nullable(),
  /** The number of the agreement on which it would draw. */
  agreement: z.string().nullable(),
  /** What was last ordered of it, and at which price. */
  paid: z
    .object({
      ...{ day: z.string(), quantity: z.string(), unit: z.string(), unitPrice: z.string(), priceBase: z.string() },
      currency: z.string(),
    })
    .nullable(),
  /** It is what was asked for. */
  isAsked: z.boolean(),
  warnings: z.array(z.string()),
  /** Why it cannot be taken. */
  why: z.array(z.string()),
})
export type LineOffer = z.infer<typeof offer>

/** A line of the Desk with everybody who has what it asks for. */
export const lineOffers = z.object({
  line: z.object({
    ...{ id: z.string(), description: z.string(), open: z.string(), unit: z.string(), needBy: z.string() },
  }),
  offers: z.array(offer),
})
export type LineOffers = z.infer<typeof lineOffers>
