import type { Handing } from '#core/approval/handed'
import type { DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { Money } from '#core/base/money'
import type { Rest } from '#core/order/change'
import type { OrderDifference } from '#core/order/compare'
import type { RequestChange } from '#core/requisition/changes'
import type { Missing } from '#core/requisition/missing'

/** A document as it is spoken of: its number where it has one, and what it is called. */
export interface Named {
  readonly number: string | null
  readonly title: string
}

/**
 * All that people, and suppliers, are told: a code with the facts it was true by. It is worded when it is read or
 * sent, in the reader's language and ways, and never kept as a sentence.
 */
export type Told =
  | (Named & { readonly code: 'to-decide'; readonly by: string; readonly amount: Money })
  | (Named & { readonly code: 'to-decide-next'; readonly by: string })
  | (Named & { readonly code: 'to-decide-anew' })
  /** Whoever was asked has them decide instead, before, or as well. */
  | (Named & {
      readonly code: 'handed-to-decide'
      readonly by: string
      readonly how: Handing['how']
      readonly comment: string
    })
  | (Named & { readonly code: 'called-back'; readonly by: string })
  /** Nobody is found who may decide. */
  | { readonly code: 'held'; readonly number: string }
  | (Named & { readonly code: 'raised-for-you'; readonly by: string; readonly amount: Money })
  | (Named & {
      readonly code: 'decided'
      readonly by: string
      readonly outcome: 'approved' | 'sent back' | 'rejected'
      readonly comment: string
      /** What was changed of it while approving. */
      readonly changes?: readonly RequestChange[]
      /** Who is asked next, after an approval that is not the last. */
      readonly next?: readonly string[]
    })
  /** Nobody is left to decide; `by` is null where nobody had to. */
  | (Named & {
      readonly code: 'approved'
      readonly by: string | null
      /** Nobody had to decide, since it lay within the owner's own limit. */
      readonly ownLimit?: boolean
      readonly comment: string
      readonly changes?: readonly RequestChange[]
      readonly amount: Money
    })
  /** What an answer by mail did, for whoever answered; or why it did nothing, in a sentence. */
  | (Named & { readonly code: 'answered-by-mail'; readonly did: 'approved' | 'sent back' | 'rejected' | 'asked' })
  | (Named & { readonly code: 'mail-not-taken'; readonly why: string })
  | (Named & { readonly code: 'asked'; readonly by: string; readonly text: string })
  | (Named & { readonly code: 'answered'; readonly by: string; readonly text: string })
  | (Named & { readonly code: 'withdrawn'; readonly by: string })
  | (Named & { readonly code: 'handed-over-to-you'; readonly by: string })
  | (Named & { readonly code: 'handed-over'; readonly by: string; readonly to: string })
  | { readonly code: 'handed-over-more'; readonly by: string; readonly count: number }
  /** All that somebody owned, or the part of it that is now the reader's. */
  | {
      readonly code: 'owned-handed-over'
      readonly by: string
      readonly of: string
      readonly requests: number
      readonly drafts: number
      readonly orders: number
      readonly trays: number
    }
  | { readonly code: 'tray-passed'; readonly by: string; readonly supplier: string }
  | (Named & { readonly code: 'reminded'; readonly by: string; readonly of: 'decision' | 'order' })
  /** Rekko itself reminds whoever is asked; `since` is the day from which on it waits for them. */
  | (Named & { readonly code: 'still-waits'; readonly since: Day })
  | (Named & {
      readonly code: 'wished'
      readonly by: string
      readonly what: 'change' | 'cancel'
      readonly text: string
    })
  /** An order that somebody decided on, for its buyer; `by` is null where nobody had to. */
  | {
      readonly code: 'order-approved'
      readonly by: string | null
      readonly title: string
      readonly comment: string
      readonly amount: Money
    }
  /** An approved order that was to be issued by itself: it was, or could not be, with the sentence that says why. */
  | { readonly code: 'order-issued-itself'; readonly number: string; readonly supplier: string }
  | { readonly code: 'order-not-issued'; readonly supplier: string; readonly why: string }
  /** A change of an order that was approved: it is in force, or could not be, with the sentence that says why. */
  | { readonly code: 'change-made'; readonly number: string; readonly supplier: string; readonly revision: number }
  | { readonly code: 'change-not-made'; readonly number: string; readonly supplier: string; readonly why: string }
  /** What of a request was changed on an order: for its owner. What is ordered less waits again, or is over. */
  | (Named & {
      readonly code: 'order-changed'
      readonly by: string
      readonly order: string
      readonly supplier: string
      readonly differences: readonly OrderDifference[]
      readonly rest: Rest | null
    })
  | (Named & {
      readonly code: 'ordered'
      readonly by: string
      readonly supplier: string
      readonly whole: boolean
    })
  /** A buyer ordered something for somebody without a request. */
  | {
      readonly code: 'ordered-for-you'
      readonly by: string
      readonly number: string
      readonly supplier: string
      readonly amount: Money
    }
  /** A part of a blanket order was called off, which is for them. */
  | {
      readonly code: 'called-off'
      readonly by: string
      readonly number: string
      readonly blanket: string
      readonly supplier: string
      readonly amount: Money
    }
  | { readonly code: 'repeated'; readonly title: string }
  | (Named & { readonly code: 'repeated-sent' })
  | { readonly code: 'repeated-held'; readonly title: string; readonly missing: readonly Missing[] }
  /** Parts that were added to a job, and asked for by themselves. */
  | (Named & { readonly code: 'parts-sent' })
  | { readonly code: 'parts-held'; readonly title: string; readonly missing: readonly Missing[] }
  | { readonly code: 'supplier-proposed'; readonly by: string; readonly name: string; readonly town: string }
  | {
      readonly code: 'supplier-decided'
      readonly by: string
      readonly name: string
      readonly accepted: boolean
      readonly reason: string
    }
  | {
      readonly code: 'order-sent'
      readonly supplier: string
      readonly number: string
      readonly organisation: string
      readonly buyer: string
      readonly lines: number
      readonly currency: string
      readonly total: DecimalText
      readonly shipTo: string
      readonly firstDay: Day | null
      /** The number under which it was placed already; null: it is placed by this. */
      readonly placedAs: string | null
      /** Of a blanket order: until when it is called off. Of a call-off: of which order it is a part. */
      readonly blanketUntil?: Day
      readonly calledFrom?: string
      /** Where the supplier answers it. */
      readonly answerAt: string | null
    }
  /** An order that its supplier did not answer, for them. */
  | {
      readonly code: 'order-unanswered'
      readonly supplier: string
      readonly number: string
      readonly organisation: string
      readonly buyer: string
      readonly issuedOn: Day
    }
  /** What a supplier answered was not agreed to, for them. */
  | {
      readonly code: 'answer-declined'
      readonly supplier: string
      readonly number: string
      readonly organisation: string
      readonly buyer: string
      readonly text: string
    }
  /** A supplier answered, for the buyer; nothing is otherwise where all comes as ordered. */
  | {
      readonly code: 'order-answered'
      readonly supplier: string
      readonly number: string
      readonly by: string
      readonly differences: readonly OrderDifference[]
      readonly note: string
    }
  /** A later revision of an order, or its cancellation, for the supplier. */
  | {
      readonly code: 'order-change-sent'
      readonly supplier: string
      readonly number: string
      readonly revision: number
      readonly isCancelled: boolean
      readonly organisation: string
      readonly buyer: string
      readonly differences: readonly OrderDifference[]
      readonly note: string
      readonly currency: string
      readonly total: DecimalText
      /** Where the supplier answers it; a cancellation asks for no answer. */
      readonly answerAt: string | null
    }
  /** One's own password, from an address. */
  | { readonly code: 'password-changed'; readonly from: string }
  /** One's own second factor, begun or ended, from an address. */
  | { readonly code: 'second-factor-changed'; readonly begun: boolean; readonly from: string }
  /** What happened since the last letter, for whoever has mails come together. */
  | { readonly code: 'daily-letter'; readonly told: readonly Told[]; readonly more: number }
  /** Changes of limits, of these people, that wait for a second person. */
  /** Something that is kept twice does not agree, or the chain of events is broken. */
  | { readonly code: 'integrity-broken' }
  | { readonly code: 'policy-waits'; readonly by: string; readonly name: string }
  | { readonly code: 'policy-given-back'; readonly by: string; readonly why: string }
  | { readonly code: 'policy-confirmed'; readonly by: string; readonly number: number }
  | { readonly code: 'limits-wait'; readonly by: string; readonly of: readonly string[] }
  /** A supplier's bank details are to change: for finance, and for the supplier with the last signs of the account. */
  | { readonly code: 'bank-change-waits'; readonly by: string; readonly supplier: string }
  | {
      readonly code: 'bank-change-asked'
      readonly organisation: string
      readonly supplier: string
      readonly ends: string
    }
  /** Money that is to move from one budget line to another, for whoever decides; and what they decided. */
  | {
      readonly code: 'transfer-waits'
      readonly by: string
      readonly from: string
      readonly to: string
      readonly amount: Money
      readonly reason: string
    }
  | {
      readonly code: 'transfer-decided'
      readonly by: string
      readonly from: string
      readonly to: string
      readonly amount: Money
      readonly agreed: boolean
      readonly comment: string
    }
  /** A long file that was to be taken back and stays, with the sentence that says why. */
  | { readonly code: 'file-stays'; readonly file: string; readonly why: string }
  /** A budget line reached a share of what it was given, in percent; `left` is below zero where it is passed. */
  | {
      readonly code: 'budget-share'
      readonly line: string
      readonly department: string
      readonly share: number
      readonly left: Money
    }
  /** Orders were made by themselves in somebody's name; or why they could not be. */
  | {
      readonly code: 'ordered-itself'
      readonly rule: string
      readonly made: number
      readonly left: number
      readonly trouble: string | null
    }
  /** A rule of ordering by itself waits for a second person, or was moved on. */
  | {
      readonly code: 'ordering-rule'
      readonly by: string
      readonly rule: string
      /** In whose name it orders. */
      readonly buyer: string
      readonly moved: string
    }
  /** What is drawn of an agreement came to its warning share. */
  | {
      readonly code: 'agreement-share'
      readonly agreement: string
      readonly name: string
      readonly supplier: string
      readonly drawn: Money
      readonly ceiling: Money
    }
  /** The day has come on which it is to be decided whether an agreement goes on. */
  | {
      readonly code: 'agreement-renewal'
      readonly agreement: string
      readonly name: string
      readonly supplier: string
      readonly endsOn: Day
    }
  /** The last day of a blanket order comes near, and something of it is not called off. */
  | { readonly code: 'blanket-ends'; readonly number: string; readonly supplier: string; readonly endsOn: Day }
  | { readonly code: 'paper-ends'; readonly supplier: string; readonly paper: string; readonly day: Day }
  | { readonly code: 'invited' | 'password-forgotten'; readonly organisation: string }
  /** Something that is done by itself failed; told once until it succeeds again. */
  | { readonly code: 'scheduled-failed'; readonly task: string; readonly error: string }
  | { readonly code: 'task-ended'; readonly task: string; readonly error: string }
  /** A sentence from before what is told was kept as facts. */
  | { readonly code: 'plain'; readonly subject: string; readonly sentence: string }
