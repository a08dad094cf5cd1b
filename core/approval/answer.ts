import type { DecisionOutcome } from './progress'
import { ANSWER_LANGUAGES, ANSWER_WORDS } from './answer-words'

/** Why an answer changes nothing. */
export type Unclear = 'empty' | 'not understood' | 'two answers' | 'condition' | 'reason missing'

/** What somebody answered to a request for their decision. */
export type Answer =
  | { readonly says: DecisionOutcome; readonly comment: string }
  | { readonly says: 'question'; readonly text: string }
  | { readonly says: 'unclear'; readonly why: Unclear }

const OUTCOMES = ['approved', 'rejected', 'sent back'] as const

/** A text as it is compared: without case, accents, marks of emphasis, and with single spaces. */
const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/[’‘`´]/g, "'")
    .replace(/[*_"“”„«»]/g, '')
    .replace(/\s+/g, ' ')
    .trim()

const all = (pick: (words: (typeof ANSWER_WORDS)['en']) => readonly string[]): readonly string[] =>
  ANSWER_LANGUAGES.flatMap((l) => pick(ANSWER_WORDS[l]).map(plain))
const escaped = (words: readonly string[]) =>
  [...words]
    .sort((a, b) => b.length - a.length)
    .map((w) => w.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'))
    .join('|')
const SAYS = OUTCOMES.map((outcome) => ({ outcome, words: escaped(all((w) => w.says[outcome])) }))
const CLOSING = new RegExp(`^(${escaped(all((w) => w.closings))})(?![\\p{L}\\p{N}])`, 'u')
const CONDITION = new RegExp(`^(${escaped(all((w) => w.conditions))})(?![\\p{L}\\p{N}])`, 'u')
/** A word of thanks after a verdict adds nothing to it. */
const THANKS = /^[\s.,!;-]*((thanks?|thank you|danke|vielen dank|merci)[\s.,!]*)?$/u

/** The verdict that a line begins with, and what is written after it; null where it begins with none. */
function verdictOf(line: string): { readonly outcome: DecisionOutcome; readonly rest: string } | null {
  const said = plain(line)
  for (const { outcome, words } of SAYS) {
    const bare = new RegExp(`^(?:${words})(?![\\p{L}\\p{N}])(.*)$`, 'u').exec(said)
    if (bare === null) continue
    const rest = bare[1] ?? ''
    if (THANKS.test(rest)) return { outcome, rest: '' }
    // After a colon or a dash stands why, as it was written.
    if (/^\s*(:|-{1,2}\s|[–—]|,)/u.test(rest))
      return { outcome, rest: line.replace(/^[^:,–—-]*(?:[:,–—]|-{1,2})\s*/u, '').trim() }
  }
  return null
}

/** The paragraphs of a letter as far as its closing. */
function paragraphsOf(text: string, writer: string): string[][] {
  const paragraphs: string[][] = [[]]
  const name = plain(writer)
  for (const line of text.split(/\r\n|\r|\n/)) {
    const said = plain(line)
    const isBegun = paragraphs.some((p) => p.length > 0)
    if (said === '') {
      if (paragraphs.at(-1)?.length !== 0) paragraphs.push([])
      continue
    }
    if (/^(--|__|==)[-_=]*$/.test(line.trim())) break
    if (isBegun && (CLOSING.test(said) || isName(said, name))) break
    paragraphs.at(-1)?.push(line.trim())
  }
  return paragraphs.filter((p) => p.length > 0)
}

/** Whether a line is nothing but the name of whoever writes, or a part of it. */
const isName = (said: string, name: string): boolean => {
  const words = said.replace(/[.,]/g, '').split(' ')
  const parts = name.split(' ')
  return words.length <= parts.length && words.every((w) => parts.includes(w))
}

const joined = (paragraphs: readonly (readonly string[])[]) =>
  paragraphs
    .map((p) => p.join(' '))
    .join('\n\n')
    .trim()

/**
 * Reads what somebody wrote as their answer, quoted text taken away already: a verdict is the first line, by a word of
 * the table alone or with a reason after a colon; a question is a first paragraph that ends with a question mark.
 * Whatever is not certain is unclear, and nothing is guessed: an approval that hangs on a condition, and two verdicts,
 * are none. `writer` is the name of whoever writes, which may stand below it.
 */
export function readAnswer(text: string, writer: string): Answer {
  const paragraphs = paragraphsOf(text, writer)
  const [first, ...others] = paragraphs
  const [line, ...more] = first ?? []
  if (first === undefined || line === undefined) return { says: 'unclear', why: 'empty' }
  const verdict = verdictOf(line)
  if (verdict === null) {
    const asked = first.join(' ')
    return /[?？]\s*$/u.test(asked)
      ? { says: 'question', text: joined(paragraphs) }
      : { says: 'unclear', why: 'not understood' }
  }
  const later = [...more, ...others.flat()]
  if (later.some((l) => (verdictOf(l)?.outcome ?? verdict.outcome) !== verdict.outcome))
    return { says: 'unclear', why: 'two answers' }
  const comment = joined([[verdict.rest, ...more].filter((l) => l !== ''), ...others])
  if (verdict.outcome === 'approved') {
    const hangs = [verdict.rest, ...later].some((l) => CONDITION.test(plain(l)))
    return hangs ? { says: 'unclear', why: 'condition' } : { says: 'approved', comment }
  }
  return comment === '' ? { says: 'unclear', why: 'reason missing' } : { says: verdict.outcome, comment }
}
