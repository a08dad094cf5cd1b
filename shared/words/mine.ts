import type { MineRow } from '#shared/contract/mine'
import { listWords } from './format'

/** What a requisition waits for, whether that is its owner, and what they can do next. */
export interface Next {
  readonly you: boolean
  readonly words: string
  readonly action: 'Answer' | 'Go on' | 'Change' | 'Take up' | 'See' | 'Copy'
}

/** What a row of Mine waits for, in words. */
export function sayNext(r: Pick<MineRow, 'state' | 'question' | 'stateBy' | 'waitsFor'>): Next {
  if (r.question !== null) return { you: true, words: `answer ${r.question}’s question`, action: 'Answer' }
  switch (r.state) {
    case 'draft':
      return { you: false, words: 'Nothing: not sent yet', action: 'Go on' }
    case 'sent back':
      return { you: true, words: `sent back by ${r.stateBy ?? 'somebody'}`, action: 'Change' }
    case 'withdrawn':
      return { you: false, words: 'Nothing: withdrawn', action: 'Take up' }
    case 'in approval':
      return {
        you: false,
        words: r.waitsFor.length > 0 ? listWords(r.waitsFor) : 'An administrator: nobody may decide',
        action: 'See',
      }
    case 'approved':
      return { you: false, words: 'A buyer, to order', action: 'See' }
    case 'part ordered':
      return { you: false, words: 'A buyer, to order the rest', action: 'See' }
    case 'ordered':
      return { you: false, words: 'The supplier, to deliver', action: 'See' }
    case 'rejected':
      return { you: false, words: `Nothing: rejected by ${r.stateBy ?? 'somebody'}`, action: 'Copy' }
    default:
      return { you: false, words: `Nothing: ${r.state}`, action: 'Copy' }
  }
}
