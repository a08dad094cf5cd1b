/** What is looked at: each is kept twice, or counted, and has to agree. */
export type IntegrityCheck = 'balances' | 'stages' | 'orders' | 'numbers' | 'chain'

/** The last link of the chain; printed and kept outside, it alone shows that the end was cut off. */
export interface ChainHead {
  readonly number: number
  readonly hash: string
}

/**
 * The first thing that does not fit a chain of events: a link whose event is gone or says something else, a link that
 * is missing, an event without a link, one that came in long after those beside it, or another head than was kept.
 */
export type ChainFault =
  | {
      readonly code: 'event-gone' | 'event-changed' | 'link-missing'
      readonly number: number
      readonly seq: number | null
    }
  | { readonly code: 'event-unlinked' | 'event-late'; readonly number: number | null; readonly seq: number }
  | { readonly code: 'head-differs'; readonly number: number; readonly seq: null }

/** What a check of the chain came to. */
export interface ChainFound {
  readonly links: number
  readonly head: ChainHead | null
  readonly fault: ChainFault | null
}

/** What a run found: how many things broke each rule, with the first of them, and the state of the chain. */
export interface IntegrityFound {
  readonly broken: readonly { readonly check: IntegrityCheck; readonly count: number; readonly first: string }[]
  readonly chain: ChainFound
}

/** True where everything agrees. */
export const isSound = (found: IntegrityFound): boolean => found.broken.length === 0 && found.chain.fault === null
