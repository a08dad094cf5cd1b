import type { MailWay } from '#core/people/person'
import type { Told } from './told'

/** What a mail is of: what waits for its reader, what became of theirs, or what nobody can leave out. */
export type MailSort = 'waiting' | 'news' | 'always'

const SORTS: Readonly<Record<Told['code'], MailSort>> = {
  'to-decide': 'waiting',
  'to-decide-next': 'waiting',
  'to-decide-anew': 'waiting',
  'handed-to-decide': 'waiting',
  held: 'waiting',
  asked: 'waiting',
  reminded: 'waiting',
  'still-waits': 'waiting',
  wished: 'waiting',
  'supplier-proposed': 'waiting',
  'limits-wait': 'waiting',
  'policy-waits': 'waiting',
  'policy-given-back': 'waiting',
  'policy-confirmed': 'waiting',
  'bank-change-waits': 'waiting',
  'transfer-waits': 'waiting',
  'handed-over-to-you': 'waiting',
  'owned-handed-over': 'waiting',
  'handed-over-more': 'waiting',
  'tray-passed': 'waiting',
  'order-not-issued': 'waiting',
  'change-not-made': 'waiting',
  'order-answered': 'waiting',
  'repeated-held': 'waiting',
  'parts-held': 'waiting',
  'raised-for-you': 'news',
  decided: 'news',
  approved: 'news',
  answered: 'news',
  withdrawn: 'news',
  'called-back': 'news',
  'handed-over': 'news',
  'order-approved': 'news',
  'order-issued-itself': 'news',
  'change-made': 'news',
  'order-changed': 'news',
  ordered: 'news',
  'ordered-for-you': 'news',
  'called-off': 'news',
  repeated: 'news',
  'repeated-sent': 'news',
  'parts-sent': 'news',
  'supplier-decided': 'news',
  'paper-ends': 'news',
  'ordered-itself': 'news',
  'ordering-rule': 'news',
  'agreement-share': 'news',
  'agreement-renewal': 'news',
  'blanket-ends': 'news',
  'budget-share': 'news',
  'file-stays': 'news',
  'transfer-decided': 'news',
  plain: 'news',
  'answered-by-mail': 'always',
  'mail-not-taken': 'always',
  'order-sent': 'always',
  'order-change-sent': 'always',
  'order-unanswered': 'always',
  'answer-declined': 'always',
  'bank-change-asked': 'always',
  'password-changed': 'always',
  'second-factor-changed': 'always',
  invited: 'always',
  'password-forgotten': 'always',
  'task-ended': 'always',
  'scheduled-failed': 'always',
  'integrity-broken': 'always',
  'daily-letter': 'always',
}

/** What sort of mail says something. */
export const mailSort = (told: Told): MailSort => SORTS[told.code]

/** Which mails somebody wants: of what waits for them, and of what became of theirs. */
export interface MailWays {
  readonly waiting: MailWay
  readonly news: MailWay
}

/** How somebody is mailed what they are told. */
export function mailWay(told: Told, ways: MailWays): MailWay {
  const sort = mailSort(told)
  return sort === 'always' ? 'at once' : ways[sort]
}
