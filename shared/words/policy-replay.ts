import type { ChangedHow, Replayed } from '#core/approval/policy-replay'
import { formatCount, listWords } from './format'

/** In what a request would go another way. */
export const CHANGED_WORDS: Readonly<Record<ChangedHow, string>> = {
  'passes at once': 'would pass at once',
  'is asked of somebody': 'would be asked of somebody',
  'is held': 'would be held',
  'is not held': 'would not be held',
  'others decide': 'others would decide, or in another order',
}

/** "Of 91 requests, 30 would pass at once instead of five, and 120 decisions would become 74." */
export function sayReplayed(r: Replayed): string {
  if (r.requests === 0) return 'No request was sent in these days.'
  const { decisions, atOnce, held } = r
  const parts = [
    decisions.now === decisions.draft
      ? `${formatCount(decisions.now, 'decision', 'decisions')} as before`
      : `${formatCount(decisions.draft, 'decision', 'decisions')} instead of ${decisions.now}`,
    ...(atOnce.now === atOnce.draft ? [] : [`${atOnce.draft} passed at once instead of ${atOnce.now}`]),
    ...(held.now + held.draft === 0 ? [] : [`${held.draft} held instead of ${held.now}`]),
  ]
  return `Of ${formatCount(r.requests, 'request', 'requests')}: ${listWords(parts)}.`
}

/** How long requests wait on average, by the times that people took this year; "" where none is known. */
export function sayReplayedHours(r: Replayed, format: (tenths: string) => string): string {
  if (r.requests === 0 || r.hours.now + r.hours.draft === 0) return ''
  const mean = (hours: number) => format((hours / r.requests).toFixed(1))
  return (
    `By the times that people took to decide this year, a request would wait ${mean(r.hours.draft)} hours instead of ` +
    `${mean(r.hours.now)}.`
  )
}
