import { compare, convert, sum, type Money } from '#core/base/money'
import type { DecimalText } from '#core/base/decimal'
import type { Draft, DraftLine } from './draft'

/** The kinds of attachments. */
export const ATTACHMENT_KINDS = ['quote', 'specification', 'drawing', 'other'] as const
export type AttachmentKind = (typeof ATTACHMENT_KINDS)[number]
/** What a file is attached as; until somebody said what it is, it counts for nothing. */
export type AttachedAs = AttachmentKind | 'unsaid'

/** A kind of requisition, named by an administrator. It chooses own fields and rules, and the series of its numbers. */
export interface RequestKind {
  readonly code: string
  readonly name: string
  readonly help: string
  readonly series: string
  /** What is added to a job is asked for by itself, as a request of this kind. */
  readonly raisesParts?: boolean | undefined
}

/** What an administrator asks for with some requests, and with which. */
export interface RequestRule {
  readonly id: string
  /** Why it is asked for, as a sentence. */
  readonly name: string
  readonly when: {
    /** The net of the lines it looks at, in the base currency, from this on. */
    readonly from: Money | null
    /** Empty lists are all. Of lines, only those of the categories count. */
    readonly kinds: readonly string[]
    readonly departmentIds: readonly string[]
    readonly categoryIds: readonly string[]
    /** Only lines that no agreement covers count. */
    readonly withoutAgreement: boolean
  }
  readonly asks:
    | { readonly what: 'quotes'; readonly count: number }
    | { readonly what: 'attachment'; readonly kind: AttachmentKind }
    | { readonly what: 'justification' }
    | { readonly what: 'reading'; readonly text: string }
}

/** What of a draft its rules look at besides itself. */
export interface RuleFacts {
  readonly baseCurrency: string
  readonly perBase: ReadonlyMap<string, DecimalText>
  /** Whether an agreement covers a line of it. */
  readonly isAgreed: (line: DraftLine, draft: Draft) => boolean
}

/** The rules that hold for a draft, by the nets of its lines. A line without a net yet counts as nothing. */
export function rulesThatHold(
  rules: readonly RequestRule[],
  draft: Draft,
  nets: ReadonlyMap<string, Money>,
  facts: RuleFacts,
): RequestRule[] {
  return rules.filter(({ when }) => {
    if (when.kinds.length > 0 && !when.kinds.includes(draft.kind)) return false
    if (when.departmentIds.length > 0 && !when.departmentIds.includes(draft.departmentId ?? '')) return false
    const lines = draft.lines.filter(
      (l) =>
        (when.categoryIds.length === 0 || when.categoryIds.includes(l.categoryId ?? '')) &&
        !(when.withoutAgreement && facts.isAgreed(l, draft)),
    )
    if (lines.length === 0) return false
    if (when.from === null) return true
    const total = sum(
      lines.flatMap((l) => {
        const net = nets.get(l.id)
        const perBase = net === undefined ? undefined : facts.perBase.get(net.currency)
        return net === undefined || perBase === undefined ? [] : [convert(net, perBase, facts.baseCurrency)]
      }),
      facts.baseCurrency,
    )
    return compare(total, when.from) >= 0
  })
}

/** Of the rules that hold, the one that asks for the most quotes; null where none asks for any. */
export function mostQuotes(
  rules: readonly RequestRule[],
): { readonly count: number; readonly rule: RequestRule } | null {
  return rules.reduce<{ count: number; rule: RequestRule } | null>(
    (most, rule) =>
      rule.asks.what === 'quotes' && rule.asks.count > (most?.count ?? 0) ? { count: rule.asks.count, rule } : most,
    null,
  )
}

/** What is attached, by kind: identical copies of a file, called what they may, count once. */
export function attachedKinds(
  files: readonly { readonly fileHash: string; readonly kind: AttachedAs }[],
): AttachedAs[] {
  return files.filter((f, i) => files.findIndex((o) => o.fileHash === f.fileHash) === i).map((f) => f.kind)
}

/** Whether a draft with its attachments has what a rule asks for. */
export function isMet(
  { id, asks }: RequestRule,
  draft: Pick<Draft, 'justification' | 'readWarnings'>,
  attached: readonly AttachedAs[],
): boolean {
  switch (asks.what) {
    case 'quotes':
      return attached.filter((kind) => kind === 'quote').length >= asks.count
    case 'attachment':
      return attached.includes(asks.kind)
    case 'justification':
      return draft.justification.trim() !== ''
    case 'reading':
      return draft.readWarnings.includes(id)
  }
}
