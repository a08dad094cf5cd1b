import type { DrawWarning } from '#core/agreement/ceiling'
import type { Day } from '#core/base/day'
import type { AgreementFixes, AgreementStanding, Misfit } from '#core/agreement/fit'
import { inWords } from './format'
import type { Ways } from './ways'

/** What an agreement fixes, in a list. */
export const FIXES_SHORT: Readonly<Record<AgreementFixes, string>> = { items: 'items and prices', sum: 'a sum' }

/** How an agreement stands, in a list; nothing is said of what is in force. */
export const STANDING_SHORT: Readonly<Record<AgreementStanding, string>> = {
  'in force': '',
  'to come': 'not begun',
  ended: 'ended',
  closed: 'closed',
}

/** Why a document does not fit an agreement, as a sentence that begins with what is the matter. */
export function sayMisfit(m: Misfit, ways: Ways): string {
  switch (m.code) {
    case 'closed':
      return 'It is closed.'
    case 'other-supplier':
      return 'It is with another supplier.'
    case 'other-currency':
      return `It is in ${m.currency}.`
    case 'not-begun':
      return `It begins on ${ways.date(m.day, '')}.`
    case 'ended':
      return `It ended on ${ways.date(m.day, '')}.`
    case 'other-department':
      return 'It is for other departments.'
    case 'not-in-it':
      return m.lines === 1
        ? 'One line is of nothing that stands in it.'
        : `${inWords(m.lines)} lines are of nothing that stands in it.`
  }
}

/** What whoever draws on an agreement should know. */
export function sayDrawWarning(w: DrawWarning, agreement: string, ways: Ways): string {
  switch (w.code) {
    case 'passes-ceiling':
      return `With what else is asked for, ${agreement} is passed by ${ways.money(w.by)}: it may not be ordered on it.`
    case 'share-reached':
      return `It brings ${agreement} to ${ways.money(w.drawn)} of ${ways.money(w.ceiling)}.`
    case 'ends-soon':
      return `${agreement} ends on ${ways.date(w.day, '')}.`
  }
}

/** What is to be known of an agreement, in a list. */
export function sayMark(w: DrawWarning, today: Day, ways: Ways): string {
  switch (w.code) {
    case 'passes-ceiling':
      return `passed by ${ways.money(w.by)}`
    case 'share-reached':
      return 'its warning share is reached'
    case 'ends-soon':
      return `ends on ${ways.date(w.day, today)}`
  }
}
