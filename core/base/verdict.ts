/**
 * A reason is a stable code with its facts; its sentence is made elsewhere (shared/words).
 * `stops` tells a refusal from a warning that travels along with a permission.
 */
export interface Reason {
  readonly code: string
  readonly stops: boolean
}

/** What the core returns for a business outcome: a value, reasons, or both. Nothing throws. */
export interface Verdict<V, R extends Reason> {
  readonly value: V | null
  readonly reasons: readonly R[]
}

/** The value stands unless a reason stops it; all reasons travel along. */
export function verdict<V, R extends Reason>(value: V, reasons: readonly R[]): Verdict<V, R> {
  return { value: reasons.some((r) => r.stops) ? null : value, reasons }
}
