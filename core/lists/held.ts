import type { ListDefinition, Values } from './list'

/** Limits of anybody, which a second person confirms; and one's own roles. */
const LIMITS = ['ownLimit', 'decidingLimit', 'orderingLimit']
const OWN = [...LIMITS, 'roles']
/** Of limits for a time: without an amount they count for nothing. */
const FOR_A_TIME = ['amount', 'until']

/** The columns of a list whose changes a second person confirms. */
export function guardedColumns(list: ListDefinition, isOwn: boolean): readonly string[] {
  if (list.name === 'limits') return FOR_A_TIME
  return list.name !== 'people' ? [] : isOwn ? OWN : LIMITS
}

/** A change of an entry, divided into what holds at once and what a second person confirms first. */
export interface Divided {
  readonly after: Values
  readonly held: { readonly before: Values; readonly after: Values } | null
}

/**
 * Divides a change: limits, and one's own roles, wait for a second person; all else holds at once. `before` is null for
 * a new entry, whose limits begin with nothing.
 */
export function divideChange(list: ListDefinition, before: Values | null, after: Values, isOwn: boolean): Divided {
  const guarded = guardedColumns(list, isOwn)
  const was = (k: string) => before?.[k] ?? ''
  const waits = guarded.filter((k) => (after[k] ?? '') !== was(k))
  if (waits.length === 0) return { after, held: null }
  const pick = (of: (k: string) => string) => Object.fromEntries(waits.map((k) => [k, of(k)]))
  return {
    after: { ...after, ...pick(was) },
    held: { before: pick(was), after: pick((k) => after[k] ?? '') },
  }
}
