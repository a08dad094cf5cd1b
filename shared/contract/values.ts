import { z } from 'zod'
import { isDecimalText } from '#core/base/decimal'
import { isDay } from '#core/base/day'

/** The values that every contract is made of. */
export const id = z.uuid('is not an id')
export const ids = z.object({ id })
export const day = z.string().max(10).refine(isDay, 'is not a day like 2026-11-25')

/** Exact decimals cross as text: at most 15 digits before the point and, as they are kept, 6 behind it. */
export const decimal = z
  .string()
  .max(40)
  .refine((t) => isDecimalText(t) && /^-?\d{1,15}(\.|$)/.test(t), 'is not a decimal number like 312.50')
  .refine((t) => !/\.\d{6}\d*[1-9]/.test(t), 'has more than 6 decimals')
export const money = z.object({ amount: decimal, currency: z.string().length(3) })

/** Text without NUL characters, which no database keeps, of at most `max` characters. */
export const text = (max: number) =>
  z
    .string()
    .max(max, `is longer than ${max} characters`)
    .refine((t) => !t.includes('\u0000'), 'contains a character that cannot be kept')

export const versioned = z.object({ id: z.string(), version: z.number().int() })
export const made = z.object({ id: z.string() })
