import { lineNet } from '#core/base/line-net'
import type { Money } from '#core/base/money'
import { adjustmentsOf, type Draft } from './draft'
import { isMet, rulesThatHold, type AttachedAs, type RequestRule, type RuleFacts } from './rules'

/** A request as it was sent, with the kinds of what is attached to it. */
export interface PastRequest {
  readonly draft: Draft
  readonly attached: readonly AttachedAs[]
}

/** For how many past requests a rule would have held, and how many of those lack what it asks for. */
export function replayRule(
  rule: RequestRule,
  past: readonly PastRequest[],
  facts: RuleFacts,
): { asked: number; lacking: number } {
  const held = past.filter(({ draft }) => rulesThatHold([rule], draft, netsOf(draft), facts).length > 0)
  return { asked: held.length, lacking: held.filter((p) => !isMet(rule, p.draft, p.attached)).length }
}

function netsOf(draft: Draft): Map<string, Money> {
  return new Map(
    draft.lines.flatMap((line) =>
      line.unitPrice === null
        ? []
        : [[line.id, lineNet({ ...line, unitPrice: line.unitPrice, adjustments: adjustmentsOf(line) })] as const],
    ),
  )
}
