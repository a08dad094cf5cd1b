/** A decision as it was made: on which sending, by whom, and for whom where somebody was away. */
export interface Decision {
  readonly round: number
  readonly actorId: string
  readonly forId: string | null
  readonly outcome: 'approved' | 'sent back' | 'rejected'
  readonly takenBack: boolean
}

/** One sending of a document. Rounds count from 1. */
export interface Sending {
  readonly round: number
  /** It came back unchanged or with nothing but less, so that what stood on the sending before goes on to stand. */
  readonly keepsEarlier: boolean
}

/** An approval that stands: who really acted, and for whom. */
export interface Approved {
  readonly actorId: string
  readonly forId: string | null
}

/** Whose decision an approval is: of whoever was away, or else of whoever acted. */
export const decidedFor = (a: Approved): string => a.forId ?? a.actorId

/** The round from which on what was decided counts: the newest that began anew. */
export const beginsWith = (sendings: readonly Sending[]): number =>
  [...sendings].sort((a, b) => b.round - a.round).find((s) => !s.keepsEarlier)?.round ?? 1

/**
 * The approvals that stand on the newest sending: those given on it, and those that stood on the one before where it
 * kept them. One that was taken back stands no more; nor does one of a person who sent the document back afterwards.
 * `decisions` are in the order in which they were made. So an approval never counts for more than its giver saw.
 */
export function standingApprovals<D extends Decision>(decisions: readonly D[], sendings: readonly Sending[]): D[] {
  const from = beginsWith(sendings)
  let stands: D[] = []
  for (const d of decisions) {
    if (d.takenBack || d.round < from) continue
    const others = stands.filter((a) => a.actorId !== d.actorId && decidedFor(a) !== decidedFor(d))
    stands = d.outcome === 'approved' ? [...others, d] : others
  }
  return stands
}
