import type { LineChange } from '#core/requisition/decided-change'
import type { DecideOutcome } from '#shared/contract/decide'

/** A decision as it was made on the page, until the server has it. */
export interface KeptDecision {
  readonly documentId: string
  readonly version: number
  readonly outcome: DecideOutcome
  readonly comment: string
  /** What of a request's lines is changed with it; those that were kept before this could be have none. */
  readonly changes?: readonly LineChange[]
  /** How it is spoken of should it come back. */
  readonly called: string
  /** It was under way once; whether it arrived is not known. */
  readonly tried: boolean
  /** It is to be taken back as soon as it is known to have arrived. */
  readonly unwanted: boolean
}

/** The key by which the server knows the same decision again, however often it arrives. */
export const keyOf = (d: Pick<KeptDecision, 'documentId' | 'version' | 'outcome' | 'changes'>): string =>
  `decide-${d.documentId}-${d.version}-${d.outcome}${tagOf(d.changes ?? [])}`

/** Tells one set of changes from another, in few figures. */
function tagOf(changes: readonly LineChange[]): string {
  if (changes.length === 0) return ''
  let tag = 7
  for (const c of JSON.stringify(changes)) tag = (Math.imul(tag, 31) + (c.codePointAt(0) ?? 0)) >>> 0
  return `-${tag.toString(36)}`
}

const isSame = (a: KeptDecision, key: string) => keyOf(a) === key

/**
 * Keeps a decision after those before it: one of the same document at the same version once, and one that was not
 * wanted any more is wanted after all.
 */
export function keep(kept: readonly KeptDecision[], d: KeptDecision): KeptDecision[] {
  if (kept.some((k) => k.documentId === d.documentId && k.version === d.version && !k.unwanted)) return [...kept]
  const key = keyOf(d)
  return kept.some((k) => isSame(k, key))
    ? kept.map((k) => (isSame(k, key) ? { ...k, unwanted: false } : k))
    : [...kept, d]
}

/** One goes on its way. */
export const markTried = (kept: readonly KeptDecision[], key: string): KeptDecision[] =>
  kept.map((k) => (isSame(k, key) ? { ...k, tried: true } : k))

/** One has arrived, or came back: it is kept no more. */
export const drop = (kept: readonly KeptDecision[], key: string): KeptDecision[] => kept.filter((k) => !isSame(k, key))

/** One is not wanted any more: what never went is dropped; what may have arrived is taken back when that is known. */
export const unwant = (kept: readonly KeptDecision[], key: string): KeptDecision[] =>
  kept.flatMap((k) => (!isSame(k, key) ? [k] : k.tried ? [{ ...k, unwanted: true }] : []))

/** Whether the server could not be reached, rather than refused: the decision is kept and sent again. */
export const isAway = (status: number): boolean => status === 0 || status === 401 || (status >= 502 && status <= 504)

/** Where in the browser those of a person are kept. */
export const placeOf = (personId: string): string => `rekko.decisions.${personId}`

/** What was kept there; nothing where it cannot be read. */
export function readKept(text: string | null): KeptDecision[] {
  try {
    const read: unknown = JSON.parse(text ?? '[]')
    return Array.isArray(read) ? (read as KeptDecision[]) : []
  } catch {
    return []
  }
}
