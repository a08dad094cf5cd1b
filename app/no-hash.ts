/**
 * Stands in for the hashing that Nuxt brings into every page for ways of fetching that no page of ours
 * uses; what is left of its use, telling two functions apart while developing, needs no more than their text.
 */
export function hash(value: unknown): string {
  return typeof value === 'function' ? String(value) : JSON.stringify(value)
}

/** Whether two plain values say the same. */
export const isEqual = (a: unknown, b: unknown): boolean => hash(a) === hash(b)
