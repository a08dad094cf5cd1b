import type { RiskMark } from '#core/approval/marks'

const MARK_WORDS: Readonly<Record<RiskMark, string>> = {
  'over budget': 'over the budget',
  'new supplier': 'new supplier',
  dearer: 'dearer than last time',
  'near a limit': 'near a limit',
  'may be a part': 'may be a part of more',
}

/** What makes somebody look twice, in words; with nothing, "". */
export const sayMarks = (marks: readonly RiskMark[]): string => marks.map((m) => MARK_WORDS[m]).join(' · ')
