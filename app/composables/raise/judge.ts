import { computeDraft, type DraftVerdict, type LineMemo } from '#core/requisition/compute'
import type { Draft } from '#core/requisition/draft'
import type { DraftFacts } from '#core/requisition/draft-facts'
import type { FieldRef } from '#core/requisition/missing'
import { mostQuotes } from '#core/requisition/rules'
import { sayMissing } from '#shared/words/requisition'
import type { Ways } from '#shared/words/ways'
import { marginOf, type Margin } from './margin-of'
import { sayConsequence } from './say-consequence'

/** Something that stands between a draft and its sending, in a sentence. */
export interface Lack {
  readonly at: FieldRef
  readonly stops: boolean
  readonly sentence: string
  /** A budget refuses, which is more than a field left open. */
  readonly refuses: boolean
}

/** A draft's verdict, with the sentences that the page makes of it. */
export interface Judgement {
  readonly verdict: DraftVerdict
  readonly lacks: readonly Lack[]
  readonly consequence: { readonly missing: number; readonly words: string }
  readonly margin: Margin
  readonly asks: Asks
}

/** What is asked for beside the lines: why a budget is passed, a justification (by its rule's name), quotes. */
export interface Asks {
  readonly whyOver: boolean
  readonly justification: string | null
  readonly quotes: string | null
}

function asksOf(verdict: DraftVerdict, facts: DraftFacts): Asks {
  const needed = mostQuotes(verdict.rules)?.count ?? 0
  const has = facts.attached.filter((k) => k === 'quote').length
  return {
    whyOver: verdict.budget.some((b) => b.control === 'asks' && b.passedBy !== null),
    justification: verdict.rules.find((r) => r.asks.what === 'justification')?.name ?? null,
    quotes:
      needed === 0
        ? null
        : has >= needed
          ? `${has} of ${needed} quotes are attached.`
          : `${needed} quotes are asked for, ${has} ${has === 1 ? 'is' : 'are'} attached.`,
  }
}

/** Who reads a judgement: in whose ways it is said, and who is “you”. */
export interface Reader {
  readonly ways: Ways
  readonly id: string | undefined
}

/** Judges a draft as the server would, and says it to whoever reads. */
export function judge(draft: Draft, facts: DraftFacts, ownerId: string, reader: Reader, memo?: LineMemo): Judgement {
  const verdict = computeDraft(draft, facts, memo)
  const nameOf = (id: string) => facts.people.people.get(id)?.name ?? ''
  return {
    verdict,
    lacks: verdict.missing.map((m) => ({
      at: m.at,
      stops: m.stops,
      sentence: sayMissing(m, reader.ways),
      refuses: m.code === 'budget-refuses',
    })),
    consequence: sayConsequence(verdict, nameOf),
    asks: asksOf(verdict, facts),
    margin: marginOf(verdict, facts, ownerId === reader.id ? 'you' : nameOf(ownerId), reader.ways),
  }
}
