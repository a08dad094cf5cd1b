import type { RequestChange } from '#core/requisition/changes'
import type { Money } from '#core/base/money'
import { sayChange } from './changes'
import { formatYear, listWords } from './format'
import { sayPeople, type Someone } from './someone'
import type { Ways } from './ways'

/** How things stand, after the title: "approved, waits to be ordered". */
export function saySentence(state: string, waits: readonly Someone[], question: boolean): string {
  switch (state) {
    case 'draft':
      return 'still being written.'
    case 'in approval':
      return question
        ? 'a question waits for an answer.'
        : waits.length === 0
          ? 'held, since nobody is found who may decide.'
          : `waits for ${sayPeople(waits)}.`
    case 'approved':
      return question ? 'approved; a buyer asks something before it is ordered.' : 'approved, waits to be ordered.'
    case 'part ordered':
      return 'approved, and a part of it is ordered.'
    case 'ordered':
      return 'approved and ordered.'
    case 'closed':
      return 'done.'
    case 'sent back':
      return 'sent back, to be changed.'
    case 'rejected':
      return 'rejected.'
    case 'withdrawn':
      return 'withdrawn.'
    default:
      return 'cancelled.'
  }
}

export interface NextFacts {
  readonly waits: readonly Someone[]
  readonly isOwner: boolean
  /** By whom, and to whom where that is not the owner. */
  readonly question: { readonly by: string; readonly to: string | null; readonly isYours: boolean } | null
  readonly owner: string
}

/** What happens next, for whoever looks. */
export function sayNext(state: string, f: NextFacts): string {
  const owner = f.isOwner ? 'you' : f.owner
  switch (state) {
    case 'draft':
      return `It is sent when ${owner === 'you' ? 'you press' : `${owner} presses`} the button on Raise.`
    case 'in approval':
      return f.question !== null
        ? `${f.question.by} asked something; ` +
            `${f.question.isYours ? 'answer below, and it goes on' : `${f.question.to ?? f.owner} has to answer`}.`
        : f.waits.length === 0
          ? 'An administrator has to name somebody who may decide.'
          : `${sayDeciders(f.waits)}; then it goes on by itself.`
    case 'approved':
    case 'part ordered':
      return f.question !== null
        ? `${f.question.by} asked something; ` +
            `${f.question.isYours ? 'answer below, and it is ordered' : `${f.owner} has to answer`}.`
        : state === 'approved'
          ? 'A buyer puts it on an order.'
          : 'A buyer orders the rest; what is ordered is on its way.'
    case 'ordered':
      return 'The supplier delivers.'
    case 'sent back':
      return (
        (f.isOwner ? 'Change what was asked for and send it again' : `${f.owner} changes it and sends it again`) +
        '; with no more than before, the approvals given stay.'
      )
    case 'withdrawn':
      return f.isOwner ? 'You can change it and send it again.' : `${f.owner} may send it again.`
    default:
      return 'Nothing more.'
  }
}

const sayDeciders = (waits: readonly Someone[]): string =>
  waits.some((w) => w.you) ? 'You decide' : `${sayPeople(waits)} ${waits.length === 1 ? 'decides' : 'decide'}`

interface EventFacts {
  readonly type: string
  readonly actor: string | null
  readonly forName: string | null
  readonly after: Record<string, unknown> | null
}
type Said = {
  readonly station: 'Need' | 'Decision' | 'Order'
  readonly who: string
  readonly what: string
  readonly more: string
}

/** One event of a requisition as a line of its trail. */
export function sayEvent(e: EventFacts, ways: Ways): Said {
  const who = e.forName === null ? (e.actor ?? 'Rekko') : `${e.actor ?? 'Rekko'} for ${e.forName}`
  const comment = typeof e.after?.comment === 'string' && e.after.comment !== '' ? `: “${e.after.comment}”` : ''
  const text = typeof e.after?.text === 'string' ? e.after.text : ''
  const to = typeof e.after?.to === 'string' ? e.after.to : ''
  // Before names were kept as names they stood in the text.
  const names = isNames(e.after?.names) ? e.after.names.join(', ') : text
  const amount = isMoney(e.after?.amount)
    ? `${e.after.amount.currency} ${ways.kept(e.after.amount.amount, e.after.amount.currency)}`
    : ''
  switch (e.type) {
    case 'sent':
    case 'sent again': {
      const lines =
        typeof e.after?.lines === 'number' ? `, ${e.after.lines} ${e.after.lines === 1 ? 'line' : 'lines'}` : ''
      const spared = e.after?.spared === true ? 'within the own limit, so no manager was asked' : ''
      return { station: 'Need', who, what: `${e.type}${lines}${amount === '' ? '' : `, ${amount}`}`, more: spared }
    }
    case 'approved':
      return {
        station: 'Decision',
        who,
        what: `approved${comment}`,
        more: isChanges(e.after?.changes)
          ? `changed with it: ${e.after.changes.map((c) => sayChange(c, ways)).join('; ')}`
          : '',
      }
    case 'sent back':
      return { station: 'Decision', who, what: `sent it back${comment}`, more: '' }
    case 'rejected':
      return { station: 'Decision', who, what: `rejected it${comment}`, more: '' }
    case 'decision taken back':
      return { station: 'Decision', who, what: 'took the decision back', more: '' }
    case 'passed on':
      return { station: 'Decision', who, what: `passed it on to ${to}${comment}`, more: '' }
    case 'asked to decide first':
      return { station: 'Decision', who, what: `had ${to} decide first${comment}`, more: '' }
    case 'asked to decide as well':
      return { station: 'Decision', who, what: `had ${to} decide as well${comment}`, more: '' }
    case 'skipped':
      return { station: 'Decision', who, what: `skipped whoever let it wait; ${to} decides${comment}`, more: '' }
    case 'called back':
      return { station: 'Decision', who, what: `called it back from ${to}`, more: '' }
    case 'asked':
      return { station: 'Decision', who, what: `asked${to === '' ? '' : ` ${to}`}: “${text}”`, more: '' }
    case 'asked about a line':
      return { station: 'Order', who, what: `asked: “${text}”`, more: '' }
    case 'answered':
      return { station: 'Need', who, what: `answered: “${text}”`, more: '' }
    case 'reminded':
      return { station: 'Need', who, what: `reminded ${names}`, more: '' }
    case 'reminded by itself':
      return { station: 'Decision', who: 'Rekko', what: 'reminded whoever it waits for', more: '' }
    case 'asked for a change':
    case 'asked for a cancellation':
      return { station: 'Order', who, what: `${e.type}: “${text}”`, more: '' }
    case 'routed again':
      return {
        station: 'Decision',
        who: 'Rekko',
        what: 'worked out anew who decides',
        more: 'people or absences changed',
      }
    case 'ordered directly':
      return { station: 'Order', who, what: 'made an order of it without a request', more: '' }
    case 'written on':
      return { station: 'Need', who, what: 'took it off the Desk and wrote on', more: '' }
    case 'withdrawn':
      return { station: 'Need', who, what: 'withdrew it', more: '' }
    case 'handed over':
      return { station: 'Need', who, what: `handed it over to ${text}`, more: '' }
    case 'carried':
    case 'released': {
      const year = typeof e.after?.year === 'number' ? formatYear(e.after.year) : ''
      return e.type === 'carried'
        ? {
            station: 'Need',
            who,
            what: `carried it to ${year} at the end of the year`,
            more: 'next year’s budget pays',
          }
        : { station: 'Need', who, what: 'released at the end of the year what it held of the budget', more: '' }
    }
    case 'order changed':
    case 'order cancelled': {
      const did = e.type === 'order changed' ? 'changed' : 'cancelled'
      const more = text === '' ? '' : `because “${text}”`
      return { station: 'Order', who, what: `${did} ${String(e.after?.number ?? 'the order')}`, more }
    }
    case 'called off':
      return {
        ...{ station: 'Order', who, more: '' },
        what: `called a part of ${String(e.after?.blanket)} off: ${String(e.after?.number)}`,
      }
    case 'put aside': {
      const until = typeof e.after?.until === 'string' ? ` until ${ways.date(e.after.until, '')}` : ''
      return { station: 'Order', who, what: `put aside${until}: ${names}`, more: text === '' ? '' : `“${text}”` }
    }
    case 'taken up again':
      return { station: 'Order', who, what: `took up again: ${names}`, more: '' }
    case 'rest cancelled':
      return { station: 'Order', who, what: 'cancelled what was not ordered', more: '' }
    default:
      return { station: 'Need', who, what: e.type, more: '' }
  }
}

/** What whoever approved changed while approving. */
function isChanges(value: unknown): value is RequestChange[] {
  return Array.isArray(value) && value.length > 0
}

function isNames(value: unknown): value is string[] {
  return Array.isArray(value) && value.every((n) => typeof n === 'string')
}

function isMoney(value: unknown): value is Money {
  return typeof value === 'object' && value !== null && 'amount' in value && 'currency' in value
}

/** What was done, by the channel it was done over. */
const SENT_OVER: Record<string, string | undefined> = { 'e-mail': 'e-mailed' }

/** An issued order as a line of a trail. */
export function sayOrder(o: {
  readonly number: string
  readonly supplier: string
  readonly state: string
  readonly channel: string | null
  readonly sentAt: string | null
  readonly pdf: boolean
  readonly others: readonly string[]
  /** The rule that made it by itself. */
  readonly rule: string | null
  readonly placedAs: string | null
  readonly isSent: boolean
}): { who: string; what: string; more: string } {
  const more = [
    ...(o.state === 'cancelled' ? ['cancelled'] : []),
    ...(o.rule === null ? [] : [`made by itself, by “${o.rule}”`]),
    ...(o.placedAs === null ? [] : [`placed already as ${o.placedAs}`]),
    ...(o.sentAt !== null
      ? [SENT_OVER[o.channel ?? ''] ?? 'sent']
      : o.isSent
        ? [`the ${o.channel ?? 'order'} is on its way`]
        : []),
    ...(o.pdf ? ['PDF kept'] : []),
    ...(o.others.length > 0 ? [`also serves ${listWords(o.others)}`] : []),
  ]
  return { who: o.number, what: `to ${o.supplier}`, more: more.join(' · ') }
}
