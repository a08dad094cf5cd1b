import type { z } from 'zod'

/** What of a schema says where its parts lie; the rest is how Zod checks them. */
interface Definition {
  readonly type: string
  readonly shape?: Readonly<Record<string, z.ZodType>>
  /** What names that are not in the shape may hold; a loose object holds anything. */
  readonly catchall?: z.ZodType
  readonly element?: z.ZodType
  readonly innerType?: z.ZodType
  readonly valueType?: z.ZodType
  readonly items?: readonly z.ZodType[]
  readonly options?: readonly z.ZodType[]
}

/**
 * A reply without anything that its description does not name: what a statement reads besides never leaves. It is cut
 * and not checked, so that no old row can break a list.
 */
export function cutReply(schema: z.ZodType, value: unknown): unknown {
  if (value === null || typeof value !== 'object') return value
  const d = schema._zod.def as unknown as Definition
  if (d.catchall?._zod.def.type === 'unknown') return value
  if (d.shape !== undefined) {
    const named = value as Record<string, unknown>
    return Object.fromEntries(
      Object.entries(d.shape).flatMap(([key, part]) => (key in named ? [[key, cutReply(part, named[key])]] : [])),
    )
  }
  const list = Array.isArray(value) ? (value as unknown[]) : null
  if (list !== null && d.element !== undefined) return cutAll(list, d.element)
  if (list !== null && d.items !== undefined) return list.map((v, i) => cutReply(d.items?.[i] ?? schema, v))
  if (d.type === 'record' && d.valueType !== undefined) {
    const { valueType } = d
    return Object.fromEntries(Object.entries(value).map(([key, v]) => [key, cutReply(valueType, v)]))
  }
  if (d.options !== undefined) {
    const fitting = d.options.find((o) => o.safeParse(value).success) ?? d.options[0]
    return fitting === undefined ? value : cutReply(fitting, value)
  }
  return d.innerType === undefined ? value : cutReply(d.innerType, value)
}

const cutAll = (list: readonly unknown[], element: z.ZodType): unknown[] => list.map((v) => cutReply(element, v))
