import type { DecisionOutcome } from '#core/approval/progress'
import type { Told } from '#core/told/told'
import type { Context } from '../context'
import type { DocumentHead, Kind } from '../document/kind'

/** What became of a document that is decided on. */
export type ApprovalOutcome =
  /** Somebody approved and others are still asked, or a decision was taken back that had led no further. */
  | { readonly state: 'waiting' }
  /** Nobody is left to decide: by a decision, unless the last step fell away. */
  | { readonly state: 'approved'; readonly decisionId: string | null }
  | { readonly state: 'stopped'; readonly by: 'sent back' | 'rejected' }
  /** A decision was taken back: the document stands where it stood, with what `undone` had released. */
  | { readonly state: 'reopened'; readonly undone: DecisionOutcome }

/**
 * What approval has to know of a kind of document: how to lock it, whose it is, and how the outcome is taken back into
 * it. A new kind of document that is decided on is one such record.
 */
export interface Decidable<D extends DocumentHead = DocumentHead> extends Kind<D> {
  /**
   * Who raised it, and the department it is of: with its owner all that is not frozen when it is sent. `ownerId` where
   * it is decided on as somebody else's than whoever owns it.
   */
  whose(document: D): { readonly raisedById: string; readonly departmentId: string; readonly ownerId?: string }
  /** Writes what became of it: its state, and what it holds of money. The document is locked. */
  takeOutcome(ctx: Context, document: D, outcome: ApprovalOutcome): Promise<void>
  /** Restores what whoever approved had changed while approving; where nobody may change it, there is none. */
  restore?(ctx: Context, document: D, from: unknown): Promise<void>
  /** Why a decision on it can no longer be taken back; null where it can. */
  wasActedOn(document: D): string | null
  /** Where its owner changes it after it was sent back. */
  changePath(id: string): string
  /** What its owner is told once nobody is left to decide; `mailed: false` where it has a mail of its own. */
  tellApproved(facts: Extract<Told, { code: 'approved' }>): { readonly told: Told; readonly mailed?: false }
}

/** Whoever raised a document, owns it, or did since it was last sent: none of them decides on it. */
export const ownersOf = <D extends DocumentHead>(kind: Decidable<D>, document: D): string[] => [
  document.ownerId,
  kind.whose(document).ownerId ?? document.ownerId,
  kind.whose(document).raisedById,
  ...document.ownedBy,
]

/** The page where a document of any kind is decided. */
export const decidePath = (id: string): string => `/decide/${id}`
