import {
  MOST_POLICY_DAYS,
  MOST_RANK,
  type MayChange,
  type PolicyChange,
  type PolicyForm,
  type PolicyReason,
} from '#core/approval/policy-form'
import { formatCount } from './format'
import { sayRule, type PolicyNames } from './policy'
import type { Ways } from './ways'

const UNKNOWN = {
  department: 'a department that is not there any more',
  category: 'a category that is not there any more',
  account: 'an account that is not there any more',
  project: 'a project that no budget line is for',
  kind: 'a kind of request that is not there any more',
  person: 'nobody yet, or somebody who is not there',
  currency: 'a currency without a rate',
  'own field': 'a choice of an own field that is not there any more',
  role: 'a role that there is not',
} as const

/** The sentence for something that is wrong with a policy. */
export function sayPolicyReason(reason: PolicyReason, nameOf: (id: string) => string = () => 'Somebody'): string {
  const it = reason.at === null ? 'The policy' : `Rule ${reason.at + 1}`
  switch (reason.code) {
    case 'name-missing':
      return 'Say in a few words what this version changes.'
    case 'amount-below-nothing':
      return `${it} names an amount below nothing.`
    case 'amount-currency':
      return `The amounts of ${it.toLowerCase()} have to be in ${reason.currency}.`
    case 'stretch-empty':
      return `${it} ends where it begins, or before: no amount lies in between.`
    case 'condition-empty':
      return `${it} has a condition that names nothing.`
    case 'condition-twice':
      return `${it} has two conditions of one sort.`
    case 'condition-idle':
      return `${it} has a condition that every request meets.`
    case 'group-empty':
      return `${it} asks a group in which nobody is.`
    case 'group-name-missing':
      return `${it} asks a group without a name.`
    case 'rank-unreadable':
      return `${it} asks in an order that is not between 1 and ${MOST_RANK}.`
    case 'days-unreadable':
      return `Days lie between 1 and ${MOST_POLICY_DAYS}.`
    case 'escalates-first':
      return 'Whoever is asked has to be reminded before the next manager is asked instead.'
    case 'tolerance-unreadable':
      return 'How much dearer an order may be is a percentage from 0 to 100, with at most two decimals.'
    case 'orders-spare':
      return `${it} is for orders, whose buyers have no own limit that spares anybody.`
    case 'unknown':
      return `${it} names ${UNKNOWN[reason.what]}.`
    case 'has-left':
      return `${it} names ${nameOf(reason.personId)}, who has left.`
  }
}

/** What happens to what waits: reminders, and who is asked instead in the end. */
export function sayWaiting({ remindDays, escalateDays }: Pick<PolicyForm, 'remindDays' | 'escalateDays'>): string {
  const after = (n: number) => formatCount(n, 'business day', 'business days')
  if (remindDays === null && escalateDays === null) return 'Whoever is asked is not reminded, however long it waits.'
  const remind = remindDays === null ? '' : `Whoever is asked is reminded after ${after(remindDays)}`
  if (escalateDays === null) return `${remind}.`
  return remind === ''
    ? `After ${after(escalateDays)} the next manager is asked too.`
    : `${remind}; after ${after(escalateDays)} their manager is asked too.`
}

/** Whether somebody may be passed over who lets something wait. */
export const saySkipping = (maySkip: boolean): string =>
  maySkip
    ? 'A step that waits may be skipped; then whoever decides in the end is asked in its place.'
    : 'No step is skipped, however long it waits.'

const MAY: Record<MayChange, string> = {
  nothing: 'A request is approved as it is, or sent back to be changed.',
  quantities: 'Whoever approves may lower quantities while approving; the approvals given before stay.',
  'quantities and payers':
    'Whoever approves may lower quantities, which leaves the approvals given before as they are, or let another ' +
    'budget line pay, after which only their own approval counts.',
}
/** What whoever approves may change while approving. */
export const sayMayChange = (may: MayChange): string => MAY[may]

/** By how much an order may pass what was approved. */
export const sayTolerance = (tolerance: PolicyForm['orderTolerance'], ways: Ways): string =>
  tolerance === null
    ? 'How much dearer than approved an order may be stands under Organisation.'
    : `An order up to ${ways.decimal(tolerance.percent)} % and ${ways.money(tolerance.amount)} dearer than approved ` +
      'is not decided on again.'

/** Which orders may be made without a request. */
export const sayDirectOrders = (direct: PolicyForm['directOrders'], ways: Ways): string =>
  direct === null
    ? 'Nothing is ordered without a request.'
    : direct.upTo === null
      ? 'Buyers may order without a request, whatever it is worth.'
      : `Buyers may order without a request up to ${ways.money(direct.upTo)}.`

/** Which decisions may be answered by mail. */
export const sayByMail = (byMail: PolicyForm['byMail'], ways: Ways): string =>
  byMail === null
    ? 'Decisions are made in Rekko alone, not by answering a mail.'
    : byMail.upTo === null
      ? 'Every decision may be made by answering its mail.'
      : `Decisions up to ${ways.money(byMail.upTo)} may be made by answering their mail.`

/** What the window of an own limit does; "" where there is none. */
export const sayOwnLimitDays = (days: number | null): string =>
  days === null
    ? 'Each request is held against an own limit by itself.'
    : `Requests of ${formatCount(days, 'day', 'days')} that name the same supplier are held against an own limit ` +
      'together.'

/** A difference between two policies: what it is of, and the sentences before and after. */
export function sayPolicyChange(
  change: PolicyChange,
  before: PolicyForm,
  after: PolicyForm,
  names: PolicyNames,
  ways: Ways,
  sayEnd: (form: PolicyForm) => string,
): { readonly of: string; readonly was: string; readonly is: string } {
  switch (change.what) {
    case 'rule added':
      return { of: 'A rule more', was: '', is: sayRule(change.rule, names, ways) }
    case 'rule gone':
      return { of: 'A rule less', was: sayRule(change.rule, names, ways), is: '' }
    case 'rule changed': {
      const [was, is] = [sayRule(change.was, names, ways), sayRule(change.rule, names, ways)]
      if (was !== is) return { of: 'A rule says something else', was, is }
      return change.was.name === change.rule.name
        ? { of: 'A rule asks in another order', was: '', is }
        : { of: 'A rule is called something else', was: change.was.name, is: change.rule.name }
    }
    case 'rules moved':
      return { of: 'The order of the rules', was: '', is: '' }
    case 'name':
      return { of: 'What the version is called', was: before.name, is: after.name }
    case 'ending':
      return { of: 'How it ends', was: sayEnd(before), is: sayEnd(after) }
    case 'own limit days':
      return {
        of: 'Own limits',
        was: sayOwnLimitDays(before.ownLimitDays),
        is: sayOwnLimitDays(after.ownLimitDays),
      }
    case 'reminders':
      return { of: 'What waits', was: sayWaiting(before), is: sayWaiting(after) }
    case 'by mail':
      return { of: 'By mail', was: sayByMail(before.byMail, ways), is: sayByMail(after.byMail, ways) }
    case 'direct orders':
      return {
        of: 'Orders without a request',
        was: sayDirectOrders(before.directOrders, ways),
        is: sayDirectOrders(after.directOrders, ways),
      }
    case 'changing':
      return { of: 'Changing', was: sayMayChange(before.mayChange), is: sayMayChange(after.mayChange) }
    case 'tolerance':
      return {
        of: 'Orders dearer than approved',
        was: sayTolerance(before.orderTolerance, ways),
        is: sayTolerance(after.orderTolerance, ways),
      }
    case 'skipping':
      return { of: 'Skipping', was: saySkipping(before.maySkip), is: saySkipping(after.maySkip) }
  }
}
