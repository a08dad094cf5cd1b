import type { FallbackCause } from '#core/approval/route'
import type { FeltTax } from '#core/requisition/felt-tax'
import type { Missing } from '#core/requisition/missing'
import type { MoveReason, RequisitionMoveName } from '#core/requisition/moves'
import { MOST_LINES, type LineDiscount } from '#core/requisition/draft'
import type { SplitReason } from '#core/base/split'
import { capital, formatCount } from './format'
import type { Ways } from './ways'

/** The sentence for what stands between a draft and its sending. */
export function sayMissing(m: Missing, ways: Ways): string {
  const line = 'name' in m && m.name !== '' ? `“${short(m.name)}”` : 'A line'
  switch (m.code) {
    case 'no-department':
      return 'Say which department this is for.'
    case 'department-not-open':
      return 'You cannot raise for this department; choose one of yours.'
    case 'no-ship-to':
      return 'Say where it is to be delivered.'
    case 'no-need-by':
      return 'Say by when it is needed.'
    case 'need-by-past':
      return 'The day it is needed by has passed; choose a later one.'
    case 'no-why':
      return 'Say why it is needed: whoever decides reads it first.'
    case 'no-lines':
      return 'Add a line: what is needed.'
    case 'too-many-lines':
      return `A requisition holds at most ${MOST_LINES} lines; move some to another.`
    case 'line-no-description':
      return 'A line does not say what is needed.'
    case 'line-quantity':
      return `${line} needs a quantity above nothing, with at most six decimals.`
    case 'line-unit':
      return `${line} has a unit that Rekko does not know.`
    case 'line-no-price':
      return `${line} has no price yet; an estimate will do.`
    case 'line-price-range':
      return `${line} needs a price from 0 to a thousand million, with at most six decimals.`
    case 'line-tax':
      return `${line} has no tax rate.`
    case 'line-currency':
      return `There is no exchange rate for ${m.currency}, which ${line} is priced in.`
    case 'line-supplier-blocked':
      return `The supplier of ${line} cannot be ordered from now; choose another or let the buyer decide.`
    case 'line-need-by-past':
      return `The day by which ${line} is needed has passed.`
    case 'no-kind':
      return 'Say what kind of request this is.'
    case 'address-unfinished':
      return 'The address needs at least a name, a street and a town.'
    case 'line-price-with-tax':
      return `The price with tax of ${line} does not give its price without tax; type it again.`
    case 'line-discount':
      return `What is taken off ${line} must lie between nothing and all of it.`
    case 'warning-unread':
      return `Read the warning about ${line}: ${m.text}`
    case 'warning-stops':
      return `${line} cannot be asked for: ${m.text}`
    case 'own-field-missing':
      return m.name === '' ? `Fill in ${m.field}.` : `Fill in ${m.field} of ${line}.`
    case 'own-field-unreadable':
      return m.name === ''
        ? `What stands in ${m.field} cannot be read.`
        : `What stands in ${m.field} of ${line} cannot be read.`
    case 'agreement-passed':
      return (
        `${m.agreement} has ${ways.money(m.by)} too little for this and what else is asked for: the buyer may have ` +
        'to order it apart from the agreement.'
      )
    case 'agreement-ends':
      return `${m.agreement}, on which this draws, ends on ${ways.date(m.day, '')}.`
    case 'need-by-soon':
      return `“${short(m.name)}” can hardly be here before ${ways.day(m.earliest, '')}.`
    case 'quotes-missing':
      return `${sayQuotes(m.needs - m.has, m.has)}: ${m.why}.`
    case 'attachment-unsaid':
      return `Say what ${m.count === 1 ? 'the attached file is' : `${m.count} attached files are`}: quotes are counted.`
    case 'attachment-missing':
      return `Attach a ${m.kind === 'other' ? 'file' : m.kind}: ${m.why}.`
    case 'justification-missing':
      return `Justify it: ${m.why}.`
    case 'reading-unread':
      return `Read this first: ${m.text}`
    case 'job-unknown':
      return 'The job that is named is not known or not open any more.'
    case 'line-no-coding':
      return `Say what pays for ${line}.`
    case 'line-coding-unknown':
      return `What pays for ${line} does not belong to this department and year; choose again.`
    case 'line-split':
      return `The parts that pay for ${line} do not add up.`
    case 'budget-refuses':
      return `${m.name} has ${ways.money(m.left)} left, and does not allow more: this is ${ways.money(m.by)} too much.`
    case 'budget-asks':
      return `${m.name} would be passed by ${ways.money(m.by)}: say why that is right.`
    case 'budget-tells':
      return `${m.name} would be passed by ${ways.money(m.by)}.`
    case 'period-closed':
      return `Period ${m.period.period} of ${m.period.year} is closed; choose another accounting date.`
    case 'route-held':
      return `${HELD_BECAUSE[m.held.because]}, and ${
        m.held.code === 'no-fallback' ? 'no fallback is set' : 'the fallback cannot decide either'
      }; ask an administrator.`
  }
}

/** Why nobody was found before whoever decides in the end was asked. */
export const HELD_BECAUSE: Readonly<Record<FallbackCause, string>> = {
  'no rule fits': 'No rule of the policy fits it',
  'nobody covers': 'Nobody’s limit covers it',
  'step is empty': 'Nobody is there who may decide',
  skipped: 'A step was skipped',
}
const sayQuotes = (missing: number, has: number): string =>
  missing === 1 && has > 0 ? 'One more quote' : `${capital(formatCount(missing, 'quote is', 'quotes are'))} missing`

/** What is taken off a line: "less 5 %", "less 12.00"; nothing where nothing is. */
export function sayDiscount(discount: LineDiscount | null, currency: string, ways: Ways): string[] {
  if (discount === null) return []
  return [
    discount.of === 'percent'
      ? `less ${ways.decimal(discount.value)} %`
      : `less ${ways.kept(discount.value, currency)}`,
  ]
}

/** How much of the tax is felt; `tax` is the tax itself, in words. */
export function sayFeltTax(felt: FeltTax, tax: string, ways: Ways): string {
  switch (felt.code) {
    case 'none':
      return 'no tax'
    case 'all-back':
      return `tax ${tax} comes back in full`
    case 'all-felt':
      return `tax ${tax} is in it, since none comes back`
    case 'part':
      return `of the tax, ${tax}, ${ways.amount(felt.felt)} is in it`
  }
}

/** What is wrong with how a line is divided over those who pay. */
export function saySplitReason(r: SplitReason, ways: Ways): string {
  switch (r.code) {
    case 'split-empty':
      return 'Say who pays.'
    case 'split-value-missing':
      return `Say how much payer ${r.at + 1} takes.`
    case 'split-negative':
      return 'The others take more than there is.'
    case 'split-not-hundred':
      return `The parts add up to ${ways.decimal(r.sum)} %.`
    case 'split-not-quantity':
      return `The parts add up to ${ways.decimal(r.sum)} of ${ways.decimal(r.quantity)}.`
    case 'split-not-amount':
      return `The parts add up to ${ways.money(r.sum)} of ${ways.money(r.whole)}.`
    case 'split-nothing':
      return 'Parts of nothing say of nobody that they pay.'
  }
}

const DONE: Record<RequisitionMoveName, string> = {
  edit: 'changed',
  throwAway: 'thrown away',
  send: 'sent',
  approve: 'approved',
  ask: 'asked about',
  handOn: 'passed on',
  sendBack: 'sent back',
  reject: 'rejected',
  answer: 'answered',
  withdraw: 'withdrawn',
  order: 'ordered',
  cancelRest: 'cancelled',
  remind: 'reminded of',
  wish: 'changed by the buyer',
  handOver: 'handed over',
}

/** The sentence for what stands in the way of a move. */
export function sayMoveReason(r: MoveReason): string {
  switch (r.code) {
    case 'wrong-state':
      return `This requisition is ${r.state} and cannot be ${DONE[r.move]} now.`
    case 'not-yours':
      return r.by === 'owner'
        ? 'Only its owner may do this.'
        : r.by === 'buyer'
          ? 'Only a buyer may do this.'
          : r.by === 'owner or buyer'
            ? 'Only its owner or a buyer may do this.'
            : r.by === 'owner or asked'
              ? 'Only its owner, or somebody who was asked something about it, may do this.'
              : 'Only somebody who is asked to decide on it now may do this.'
  }
}

function short(text: string): string {
  return text.length > 60 ? `${text.slice(0, 57)}…` : text
}
