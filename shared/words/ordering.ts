import type { Day } from '#core/base/day'
import { moneyOf } from '#core/base/money'
import type { ItselfReason, OrderingForm, OrderingPrice, OrderingTime } from '#core/order/by-itself'
import type { RuleState } from '#core/order/rule-moves'
import { formatCount, listWords } from './format'
import { sayLeft } from './proposal'
import type { Ways } from './ways'

/** How a rule stands. */
export const RULE_STANDS: Readonly<Record<RuleState, string>> = {
  draft: 'not in force',
  asked: 'waits for a second person',
  'in force': 'in force',
  paused: 'paused',
  ended: 'ended',
}

/** What lines cost that a rule covers. */
export const PRICE_WORDS: Readonly<Record<OrderingPrice, string>> = {
  agreed: 'that an agreement covers, at no more than it says',
  catalogue: 'of the catalogue, at its price',
  any: 'of any price, also an asker’s own',
}

const two = (n: number) => String(n).padStart(2, '0')

/** When a rule is carried out. */
export const sayTime = (time: OrderingTime): string =>
  time.each === 'approval' ? 'as soon as a request is approved' : `every business day at ${two(time.hour)}:00`

/** What a rule names, by id or code, in words. */
export type NameOf = (of: 'kind' | 'department' | 'category' | 'supplier', id: string) => string

/** A rule as sentences: what it covers, when, and how it puts it together. */
export function sayRule(form: OrderingForm, nameOf: NameOf, currency: string, ways: Ways): string {
  const some = (of: Parameters<NameOf>[0], ids: readonly string[], before: string) =>
    ids.length === 0 ? '' : ` ${before} ${listWords(ids.map((id) => nameOf(of, id)))}`
  const lines =
    'lines' +
    some('category', form.categoryIds, 'of') +
    some('supplier', form.supplierIds, 'from') +
    some('department', form.departmentIds, 'for') +
    some('kind', form.kinds, 'in requests of the kind')
  const together = [
    `${lines} ${PRICE_WORDS[form.price]}`,
    ...(form.upTo === null ? [] : [`in orders up to ${ways.money(moneyOf(form.upTo, currency))}`]),
    ...(form.mostRequests === null ? [] : [`at most ${formatCount(form.mostRequests, 'request', 'requests')} to each`]),
    ...(form.windowDays === null ? [] : [`needed within ${formatCount(form.windowDays, 'day', 'days')} of each other`]),
    ...(form.byDepartment ? ['one department to each'] : []),
    ...(form.waitFor === null
      ? []
      : [
          `less than ${ways.money(moneyOf(form.waitFor.value, currency))} waits for more, at most ` +
            formatCount(form.waitFor.days, 'day', 'days'),
        ]),
  ]
  return `Ordered ${sayTime(form.time)}: ${together.join('; ')}.`
}

/** Why a line that a rule covers is not ordered. */
export function sayItselfReason(r: ItselfReason, today: Day, ways: Ways): string {
  switch (r.code) {
    case 'above-sum':
      return `The order would come to ${ways.money(r.net)}: the rule orders up to ${ways.money(r.most)}.`
    case 'below-minimum':
      return `${ways.money(r.goods)} of goods: the supplier takes orders from ${ways.money(r.minimum)}.`
    case 'above-agreed':
      return (
        `${r.description} costs ${ways.price(r.price.amount, r.price.currency)}, ` +
        `and its agreement says ${ways.price(r.agreed.amount, r.agreed.currency)}.`
      )
    case 'above-limit':
      return (
        `The order would come to ${ways.money(r.net)}: in whose name it is made may order ` +
        `${r.limit === null ? 'nothing alone' : `up to ${ways.money(r.limit)}`}.`
      )
    case 'own-need':
      return 'It would serve the need of its buyer alone: another buyer has to issue it.'
    case 'refused':
      return r.why
    default:
      return sayLeft(r, today, ways)
  }
}

/** Why a run began. */
export const RUN_CAUSES: Readonly<Record<'approval' | 'time' | 'asked', string>> = {
  approval: 'something was approved',
  time: 'its hour had come',
  asked: 'somebody asked for it',
}

/** What came of a run. */
export function sayRun(r: { readonly made: number; readonly left: number; readonly endedAt: string | null }): string {
  const made = r.made === 0 ? 'no order' : formatCount(r.made, 'order', 'orders')
  const left = r.left === 0 ? 'nothing left' : `${formatCount(r.left, 'line', 'lines')} left`
  return `${made}, ${r.endedAt === null ? 'not at its end' : left}`
}
