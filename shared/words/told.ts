import type { Told } from '#core/told/told'
import type { RequestChange } from '#core/requisition/changes'
import { sayChange } from './changes'
import { capital, formatCount, listWords } from './format'
import { sayDifference } from './order-change'
import { sayAnswered } from './order-answer'
import { sayOwned } from './owner'
import { SCHEDULED_WORDS } from './scheduled'
import { sayMissing } from './requisition'
import type { Ways } from './ways'

/** What is told, in words: the subject of a mail, and the sentence of mail and notice. */
export interface Said {
  readonly subject: string
  readonly sentence: string
}

const BY_MAIL = { approved: 'approved', 'sent back': 'sent back', rejected: 'rejected', asked: 'asked about' } as const
const quoted = (comment: string) => (comment === '' ? '' : ` “${comment}”`)
const changedWith = (changes: readonly RequestChange[] | undefined, ways: Ways) =>
  changes === undefined || changes.length === 0
    ? ''
    : ` Changed with it: ${changes.map((c) => sayChange(c, ways)).join('; ')}.`
/** What was changed while approving, and what was said. */
const besides = (t: { readonly changes?: readonly RequestChange[]; readonly comment: string }, ways: Ways) =>
  changedWith(t.changes, ways) + quoted(t.comment)
const numbered = (n: string | null, title: string) => (n === null ? title : `${n}, ${title}`)

/** Where a supplier says whether it delivers as ordered; no address, no lines. */
const askForAnswer = (address: string | null): string[] =>
  address === null
    ? []
    : ['Please say whether you deliver as ordered, or what is otherwise; nobody needs an account for it:', address, '']

/** Words what was told, for one reader. */
export function sayTold(t: Told, ways: Ways): Said {
  switch (t.code) {
    case 'to-decide':
      return {
        subject: `For your decision: ${t.title}`,
        sentence: `${t.by} asks for ${ways.money(t.amount)}: ${t.title}.`,
      }
    case 'to-decide-next':
      return {
        subject: `For your decision: ${t.title}`,
        sentence: `${t.by} approved ${numbered(t.number, t.title)}; now it waits for you.`,
      }
    case 'to-decide-anew':
      return {
        subject: `For your decision: ${t.title}`,
        sentence: `${numbered(t.number, t.title)}, now waits for you.`,
      }
    case 'held':
      return {
        subject: `Held: ${t.number}`,
        sentence:
          `${t.number} is held: nobody is found who may decide on it. It goes on as soon as somebody is back or ` +
          `somebody decides for them.`,
      }
    case 'raised-for-you':
      return {
        subject: `Raised for you: ${t.title}`,
        sentence: `${t.by} raised ${t.title} for you, ${ways.money(t.amount)}; it is yours from now on.`,
      }
    case 'decided': {
      const next = t.next ?? []
      return {
        subject: `${t.number ?? ''} ${t.outcome}${next.length > 0 ? ` by ${t.by}` : ''}: ${t.title}`.trim(),
        sentence:
          `${t.by} ${t.outcome} ${numbered(t.number, t.title)}` +
          `${next.length > 0 ? `; next it waits for ${listWords(next)}` : ''}.${besides(t, ways)}`,
      }
    }
    case 'approved':
      return {
        subject: `${t.number ?? ''} approved: ${t.title}`.trim(),
        sentence:
          t.by === null
            ? `${numbered(t.number, t.title)}, is approved` +
              `${t.ownLimit === true ? ' within your own limit' : ', and nobody has to decide on it'}: ` +
              `${ways.money(t.amount)}. The buyers have it.`
            : `${t.by} approved ${numbered(t.number, t.title)}, and nobody is left to decide: ` +
              `${ways.money(t.amount)} are approved, and the buyers have it.${besides(t, ways)}`,
      }
    case 'handed-to-decide':
      return {
        subject: `For your decision: ${t.title}`,
        sentence: `${t.by} ${HANDED[t.how]} ${numbered(t.number, t.title)}.${quoted(t.comment)}`,
      }
    case 'called-back':
      return {
        subject: `No longer for you: ${t.title}`,
        sentence: `${t.by} called ${numbered(t.number, t.title)}, back; nothing is asked of you.`,
      }
    case 'answered-by-mail':
      return {
        subject: `You ${BY_MAIL[t.did]} ${t.title}`,
        sentence:
          `You ${BY_MAIL[t.did]} ${numbered(t.number, t.title)}, by mail. If that was not you, tell an ` +
          'administrator.',
      }
    case 'mail-not-taken':
      return {
        subject: `Not taken: your answer about ${t.title}`,
        sentence:
          `Your mail about ${numbered(t.number, t.title)}, changed nothing. ${t.why} Answer the mail that asked you, ` +
          'or decide in Rekko.',
      }
    case 'asked':
      return {
        subject: `A question about ${t.title}`,
        sentence: `${t.by} asks about ${t.number ?? t.title}: “${t.text}”`,
      }
    case 'answered':
      return {
        subject: `An answer about ${t.title}`,
        sentence: `${t.by} answers about ${t.number ?? t.title}: “${t.text}”`,
      }
    case 'withdrawn':
      return {
        subject: `Withdrawn: ${t.title}`,
        sentence: `${t.by} withdrew ${numbered(t.number, t.title)}; there is nothing left to decide.`,
      }
    case 'handed-over-to-you':
      return { subject: `Yours now: ${t.title}`, sentence: `${t.by} handed ${whatever(t)} over to you.` }
    case 'handed-over':
      return { subject: `Handed over: ${t.title}`, sentence: `${t.by} handed ${whatever(t)} over to ${t.to}.` }
    case 'handed-over-more':
      return {
        subject: 'Handed over to you',
        sentence:
          `${t.by} handed ${formatCount(t.count, 'more request', 'more requests')} of the same owner ` +
          `over to you; you find them in Mine.`,
      }
    case 'owned-handed-over':
      return {
        subject: `Handed over to you: what was ${t.of}’s`,
        sentence: `${t.by} handed ${sayOwned(t)} of ${t.of} over to you.`,
      }
    case 'tray-passed':
      return {
        subject: `A tray for ${t.supplier}`,
        sentence: `${t.by} passed a tray for ${t.supplier} to you; it lies on your Desk.`,
      }
    case 'reminded':
      return {
        subject: `A reminder: ${t.title}`,
        sentence:
          `${t.by} reminds you: ${numbered(t.number, t.title)}, waits ` +
          `${t.of === 'decision' ? 'for your decision' : 'to be ordered'}.`,
      }
    case 'still-waits':
      return {
        subject: `Still for your decision: ${t.title}`,
        sentence: `${numbered(t.number, t.title)}, has waited for your decision since ${ways.date(t.since, t.since)}.`,
      }
    case 'wished': {
      const [subject, what] =
        t.what === 'change' ? (['A change', 'a change'] as const) : (['A cancellation', 'the cancellation'] as const)
      return {
        subject: `${subject} asked for: ${t.title}`,
        sentence: `${t.by} asks for ${what} of ${numbered(t.number, t.title)}: “${t.text}”`,
      }
    }
    case 'order-approved':
      return {
        subject: `Approved: ${t.title}`,
        sentence:
          (t.by === null
            ? `Nobody has to decide on the ${t.title}: `
            : `${t.by} approved the ${t.title}, and nobody is left to decide: `) +
          `${ways.money(t.amount)} may be issued.${quoted(t.comment)}`,
      }
    case 'change-made':
      return {
        subject: `${t.number} is changed`,
        sentence: `Revision ${t.revision} of ${t.number} went to ${t.supplier} as soon as it was approved.`,
      }
    case 'change-not-made':
      return {
        subject: `${t.number} could not be changed`,
        sentence: `The change of ${t.number} to ${t.supplier} is approved, and could not be made: ${t.why}`,
      }
    case 'order-changed':
      return {
        subject: `Changed: ${t.order}, which serves ${numbered(t.number, t.title)}`,
        sentence:
          `${t.by} changed ${t.order} to ${t.supplier}, which serves ${numbered(t.number, t.title)}. ` +
          `${t.differences.map((d) => sayDifference(d, ways)).join('; ')}.${
            t.rest === null
              ? ''
              : t.rest === 'returns'
                ? ' What is ordered less waits to be ordered again.'
                : ' What is ordered less is not ordered again.'
          }`,
      }
    case 'order-issued-itself':
      return {
        subject: `${t.number} is issued`,
        sentence: `${t.number} to ${t.supplier} was issued as soon as it was approved, as you wished.`,
      }
    case 'order-not-issued':
      return {
        subject: `Not issued: the order to ${t.supplier}`,
        sentence: `The order to ${t.supplier} is approved and could not be issued by itself: ${t.why}`,
      }
    case 'ordered':
      return {
        subject: `${t.number ?? ''} ordered: ${t.title}`.trim(),
        sentence: `${t.by} ordered ${t.whole ? '' : 'a part of '}${numbered(t.number, t.title)}, from ${t.supplier}.`,
      }
    case 'ordered-for-you':
      return {
        subject: `${t.number} ordered for you, from ${t.supplier}`,
        sentence: `${t.by} ordered ${t.number} for you from ${t.supplier}, for ${ways.money(t.amount)}.`,
      }
    case 'called-off':
      return {
        subject: `${t.number} called off of ${t.blanket}`,
        sentence: `${t.by} called ${ways.money(t.amount)} off of ${t.blanket} to ${t.supplier}, as ${t.number}.`,
      }
    case 'repeated':
      return {
        subject: `Raised again: ${t.title}`,
        sentence: `${t.title} was raised again by its rhythm and waits for your look.`,
      }
    case 'repeated-sent':
      return {
        subject: `Sent by its rhythm: ${t.title}`,
        sentence: `${numbered(t.number, t.title)}, was raised again and sent by its rhythm.`,
      }
    case 'repeated-held':
      return {
        subject: `Waits for you: ${t.title}`,
        sentence:
          `${t.title} was raised again by its rhythm and could not be sent: ` +
          `${t.missing.map((m) => sayMissing(m, ways)).join(' ')}`,
      }
    case 'parts-sent':
      return {
        subject: `Sent by itself: ${t.title}`,
        sentence: `What you added to a job was asked for at once: ${numbered(t.number, t.title)}.`,
      }
    case 'parts-held':
      return {
        subject: `Waits for you: ${t.title}`,
        sentence:
          `What you added to a job was written as a request and could not be sent: ` +
          `${t.missing.map((m) => sayMissing(m, ways)).join(' ')}`,
      }
    case 'supplier-proposed':
      return {
        subject: `A new supplier: ${t.name}`,
        sentence:
          `${t.by} proposes a new supplier: ${t.name}, ${t.town}. Requests may name it meanwhile; ` +
          `orders wait for you.`,
      }
    case 'supplier-decided':
      return {
        subject: `${t.name} ${t.accepted ? 'approved' : 'refused'}`,
        sentence: t.accepted
          ? `${t.by} approved ${t.name}; it can be ordered from now.`
          : `${t.by} refused ${t.name}: “${t.reason}”`,
      }
    case 'order-sent':
      return {
        subject: `${capital(sayOrderSort(t))} ${t.number} from ${t.organisation}`,
        sentence: [
          `Dear ${t.supplier},`,
          '',
          `please find our ${sayOrderSort(t)} ${t.number} attached: ${t.lines} ${t.lines === 1 ? 'line' : 'lines'}, ` +
            `${t.currency} ${ways.kept(t.total, t.currency)} with tax,`,
          t.blanketUntil === undefined
            ? `to be delivered to ${t.shipTo}${t.firstDay === null ? '' : ` by ${ways.day(t.firstDay, '')}`}.`
            : `to be called off in parts until ${ways.date(t.blanketUntil, '')}. Please deliver nothing before.`,
          '',
          ...(t.calledFrom === undefined ? [] : [`It is called off of our blanket order ${t.calledFrom}.`, '']),
          ...(t.placedAs === null
            ? []
            : [`It confirms what we ordered already as ${t.placedAs}: please do not deliver it twice.`, '']),
          'Please quote its number on your delivery note and your invoice.',
          '',
          ...askForAnswer(t.answerAt),
          t.buyer,
          t.organisation,
        ].join('\n'),
      }
    case 'order-change-sent':
      return {
        subject: t.isCancelled
          ? `Cancellation of purchase order ${t.number} from ${t.organisation}`
          : `Purchase order ${t.number}, revision ${t.revision}, from ${t.organisation}`,
        sentence: [
          `Dear ${t.supplier},`,
          '',
          ...(t.isCancelled
            ? [`please do not deliver our purchase order ${t.number}: it is cancelled. The cancellation is attached.`]
            : [
                `our purchase order ${t.number} has changed; revision ${t.revision} is attached and takes the place ` +
                  `of what we sent before. It comes to ${t.currency} ${ways.kept(t.total, t.currency)} with tax.`,
                '',
                ...t.differences.map((d) => `- ${sayDifference(d, ways)}`),
              ]),
          ...(t.note === '' ? [] : ['', t.note]),
          '',
          ...askForAnswer(t.answerAt),
          t.buyer,
          t.organisation,
        ].join('\n'),
      }
    case 'order-unanswered':
      return {
        subject: `Purchase order ${t.number} from ${t.organisation}: please answer`,
        sentence: [
          `Dear ${t.supplier},`,
          '',
          `we have no answer yet to our purchase order ${t.number} of ${ways.day(t.issuedOn, '')}. ` +
            'Please say whether you deliver as ordered, and by when:',
        ].join('\n'),
      }
    case 'answer-declined':
      return {
        subject: `Purchase order ${t.number} from ${t.organisation}: about your answer`,
        sentence: [
          `Dear ${t.supplier},`,
          '',
          `thank you for your answer to our purchase order ${t.number}. We cannot agree to it: “${t.text}”`,
          'The order stands as it was sent. Please answer it anew:',
        ].join('\n'),
      }
    case 'order-answered':
      return t.differences.length === 0
        ? {
            subject: `${t.number}: ${t.supplier} delivers as ordered`,
            sentence: `${t.by} of ${t.supplier} answered ${t.number}: all comes as ordered.${quoted(t.note)}`,
          }
        : {
            subject: `${t.number}: ${t.supplier} answered otherwise than ordered`,
            sentence:
              `${t.by} of ${t.supplier} answered ${t.number}: ` +
              `${t.differences.map((d) => sayAnswered(d, ways)).join('; ')}.${quoted(t.note)} It waits for your yes.`,
          }
    case 'password-changed':
      return {
        subject: 'Your password was changed',
        sentence:
          `Your password was changed from ${t.from}, and you were signed out everywhere else. ` +
          `If it was not you, tell an administrator at once.`,
      }
    case 'second-factor-changed':
      return {
        subject: t.begun ? 'Signing in asks for a code from now on' : 'Signing in asks for no code any more',
        sentence:
          `Your second factor was ${t.begun ? 'set up' : 'taken away'}${t.from === '' ? '' : `, from ${t.from}`}. ` +
          'If that was not you, tell an administrator at once.',
      }
    case 'daily-letter': {
      const all = t.told.length + t.more
      return {
        subject: `Since your last letter: ${formatCount(all, 'thing', 'things')}`,
        sentence: [
          ...t.told.map((one) => `- ${sayTold(one, ways).sentence}`),
          ...(t.more > 0 ? [`and ${t.more} more, beneath your name in Rekko`] : []),
        ].join('\n'),
      }
    }
    case 'integrity-broken':
      return {
        subject: 'Something that Rekko keeps does not agree',
        sentence: 'A look at what is kept found something that does not agree. Look back says what it is.',
      }
    case 'policy-waits':
      return {
        subject: 'A change of the approval policy waits for a second person',
        sentence: `${t.by} asks to put “${t.name}” in force. It holds once you, or another, confirm it.`,
      }
    case 'policy-given-back':
      return {
        subject: 'The draft of the approval policy came back',
        sentence: `${t.by} gave the draft of the approval policy back.${quoted(t.why)}`,
      }
    case 'policy-confirmed':
      return {
        subject: `Version ${t.number} of the approval policy is confirmed`,
        sentence: `${t.by} confirmed your draft; it is version ${t.number} of the approval policy.`,
      }
    case 'limits-wait': {
      const many = t.of.length > 3 ? `${t.of.length} people` : listWords(t.of)
      return {
        subject: 'Limits wait for a second person',
        sentence: `${t.by} asks to change limits or roles of ${many}. They hold once you, or another, confirm them.`,
      }
    }
    case 'transfer-waits':
      return {
        subject: `Money for ${t.to}`,
        sentence:
          `${t.by} proposes to move ${ways.money(t.amount)} from ${t.from} to ${t.to}: “${t.reason}” It moves once ` +
          'you agree.',
      }
    case 'transfer-decided':
      return {
        subject: `${ways.money(t.amount)} for ${t.to}: ${t.agreed ? 'agreed' : 'refused'}`,
        sentence:
          (t.agreed
            ? `${t.by} agreed; ${ways.money(t.amount)} moved from ${t.from} to ${t.to}.`
            : `${t.by} refused to move ${ways.money(t.amount)} from ${t.from} to ${t.to}.`) + quoted(t.comment),
      }
    case 'bank-change-waits':
      return {
        subject: `Bank details wait for you: ${t.supplier}`,
        sentence:
          `${t.by} asks to change the bank details of ${t.supplier}. Nothing is paid there until you, or another of ` +
          'finance, confirm them; ask the supplier by a telephone number that you know.',
      }
    case 'bank-change-asked':
      return {
        subject: `${t.organisation}: your bank details`,
        sentence:
          `We were asked to pay ${t.supplier} to another account from now on; its number ends in ${t.ends}. ` +
          'If it was not you who asked for that, tell us at once by telephone; nothing is changed yet.',
      }
    case 'file-stays':
      return {
        subject: `${t.file} was not taken back`,
        sentence: `What ${t.file} brought stays as it is: ${t.why}`,
      }
    case 'budget-share': {
      const left = t.left.amount.startsWith('-') ? { amount: t.left.amount.slice(1), currency: t.left.currency } : null
      return {
        subject: `${t.line}: ${t.share} % is spoken for`,
        sentence:
          `${t.line} of ${t.department} has reached ${t.share} % of what it was given, with what is asked for and ` +
          `ordered. ${left === null ? `${ways.money(t.left)} is left.` : `It is ${ways.money(left)} over.`}`,
      }
    }
    case 'ordered-itself': {
      const made = `${capital(formatCount(t.made, 'order was', 'orders were'))} made by “${t.rule}” in your name`
      const left = t.left === 0 ? '' : `; ${formatCount(t.left, 'line is', 'lines are')} left`
      return {
        subject: `${t.rule}: ${formatCount(t.made, 'order', 'orders')}`,
        sentence: `${made}${left}.${t.trouble === null ? '' : ` ${t.trouble}`}`,
      }
    }
    case 'ordering-rule':
      return {
        subject: `“${t.rule}” is ${t.moved}`,
        sentence:
          t.moved === 'asked for'
            ? `${t.by} asks that “${t.rule}” be put in force: it orders by itself in the name of ${t.buyer}.`
            : `${t.by}: “${t.rule}”, which orders by itself in the name of ${t.buyer}, is ${t.moved}.`,
      }
    case 'agreement-share':
      return {
        subject: `${t.agreement}: ${ways.money(t.drawn)} of ${ways.money(t.ceiling)} are drawn`,
        sentence:
          `${t.agreement} “${t.name}” with ${t.supplier} has reached its warning share: ${ways.money(t.drawn)} of ` +
          `${ways.money(t.ceiling)} are drawn.`,
      }
    case 'agreement-renewal':
      return {
        subject: `${t.agreement} is to be renewed, or left to end`,
        sentence:
          `${t.agreement} “${t.name}” with ${t.supplier} ends on ${ways.date(t.endsOn, '')}, and this is the day on ` +
          'which it is to be decided whether it goes on.',
      }
    case 'blanket-ends':
      return {
        subject: `${t.number} to ${t.supplier} ends, and a part of it is not called off`,
        sentence:
          `${t.number}, the blanket order to ${t.supplier}, ends on ${ways.date(t.endsOn, '')}. What is left of it ` +
          'can be called off until then, given back, or its last day put off.',
      }
    case 'paper-ends':
      return {
        subject: `${t.paper} of ${t.supplier} ends`,
        sentence: `${t.paper} of ${t.supplier} ends on ${ways.date(t.day, '')}. Ask them for the next one.`,
      }
    case 'invited':
      return {
        subject: `Welcome to Rekko at ${t.organisation}`,
        sentence:
          `${t.organisation} uses Rekko for what people need at work: say what you need, and see where it stands. ` +
          'Choose a password at this address; it opens once, and for seven days.',
      }
    case 'password-forgotten':
      return {
        subject: 'Choose another password',
        sentence:
          'Somebody asked for another password for you. Choose it at this address; it opens once, and for two hours. ' +
          'If it was not you, leave it: your password is as before.',
      }
    case 'task-ended':
      return {
        subject: 'Something was not carried out',
        sentence:
          `Rekko tried for days and has given up: ${TASK_WORDS[t.task] ?? t.task}. The last cause was ` +
          `“${t.error}”.`,
      }
    case 'scheduled-failed':
      return {
        subject: 'Something that is done by itself failed',
        sentence:
          `${SCHEDULED_WORDS[t.task]?.name ?? t.task}: a run failed, and the next one tries again. The cause was ` +
          `“${t.error}”.`,
      }
    case 'plain':
      return { subject: t.subject, sentence: t.sentence }
  }
}

const whatever = (t: { readonly number: string | null; readonly title: string }) =>
  `${t.number ?? 'a draft'}, ${t.title === '' ? 'without a title' : t.title}`

const HANDED = {
  on: 'passed a decision on to you:',
  first: 'wants you to decide first on',
  'as well': 'wants you to decide as well on',
  skip: 'leaves a decision that waited too long to you:',
} as const

const TASK_WORDS: Record<string, string | undefined> = {
  'send-mail': 'an e-mail to a colleague',
  'issue-approved': 'the issuing of an order that was approved',
  'put-change-in-force': 'a change of an order that was approved',
  'mail-approved': 'the e-mail that a request is approved',
  'send-order': 'the sending of an order to its supplier',
  'file-order': 'the PDF of an order',
  'route-again': 'working out anew who decides on a request',
  'repeat-template': 'raising a request by its rhythm',
  'send-repeated': 'sending a request that its rhythm raised',
}

/** Which sort of order a supplier is sent. */
function sayOrderSort(t: { readonly blanketUntil?: string; readonly calledFrom?: string }): string {
  if (t.calledFrom !== undefined) return 'call-off'
  return t.blanketUntil === undefined ? 'purchase order' : 'blanket order'
}
