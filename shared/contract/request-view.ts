import { z } from 'zod'
import { money } from './values'

/** A line as others read it: what, from whom, for how much, and who pays which part of it. */
export const requestLine = z.object({
  id: z.string(),
  description: z.string(),
  quantity: z.string(),
  unit: z.string(),
  /** Null while it is not known. */
  unitPrice: z.string().nullable(),
  priceBase: z.string(),
  currency: z.string(),
  net: money.nullable(),
  /** The catalogue's price, where another was written. */
  listPrice: z.string().nullable(),
  supplier: z.string().nullable(),
  supplierPart: z.string().nullable(),
  /** The budget lines that pay; several each with its part. */
  paidFrom: z.array(z.string()),
  more: z.array(z.string()),
  ordered: z.string(),
  cancelled: z.string(),
})
export type RequestLine = z.infer<typeof requestLine>

/** What a request says, worded for whoever reads it: for its trail, and for whoever decides. */
export const requestView = z.object({
  kind: z.string(),
  owner: z.string(),
  department: z.string(),
  needBy: z.string().nullable(),
  why: z.string(),
  justification: z.string(),
  overBudgetReason: z.string(),
  noteInternal: z.string(),
  /** Own fields, job and the note to the supplier. */
  besides: z.array(z.string()),
  /** Where to, and what whoever delivers has to know. */
  delivery: z.array(z.string()),
  tax: z.array(z.object({ currency: z.string(), net: money, tax: money, total: money })),
  lines: z.array(requestLine),
})
export type RequestView = z.infer<typeof requestView>
