import type { ListDefinition, ListName } from '#core/lists/list'
import type { ListReason } from '#core/lists/reason'
import type { SetUpStep } from '#core/lists/set-up'
import { capital, formatCount } from './format'

/** How each list is spoken of: as a place, one and several of its entries, and what only one of them may have. */
export const LIST_WORDS: Readonly<
  Record<
    ListName,
    {
      readonly title: string
      readonly one: string
      readonly many: string
      readonly once: string
      /** What the list is for. */
      readonly says: string
      /** How those are spoken of that are offered no more, after their number; what makes them so, and so many. */
      readonly out: string
      readonly retire: string
      readonly retires: (many: string) => string
    }
  >
> = {
  places: {
    title: 'Places',
    one: 'place',
    many: 'places',
    once: 'a name',
    says: 'Where deliveries go: what people choose as “delivered to”.',
    out: 'retired',
    retire: 'retire them: offered no more',
    retires: (many) => `retire ${many}`,
  },
  departments: {
    title: 'Departments',
    one: 'department',
    many: 'departments',
    once: 'a cost centre or a name',
    says: 'Who needs things: each with its cost centre, what it is part of, and what of the tax comes back.',
    out: 'retired',
    retire: 'retire them: nobody raises for them any more',
    retires: (many) => `retire ${many}`,
  },
  accounts: {
    title: 'Accounts',
    one: 'account',
    many: 'accounts',
    once: 'a code',
    says: 'What money is spent on, by the codes of your bookkeeping.',
    out: 'retired',
    retire: 'retire them: offered no more',
    retires: (many) => `retire ${many}`,
  },
  categories: {
    title: 'Categories',
    one: 'category',
    many: 'categories',
    once: 'a name',
    says: 'What things are kept under: the branches of the Catalogue, each with the account that usually pays.',
    out: 'retired',
    retire: 'retire them: offered no more',
    retires: (many) => `retire ${many}`,
  },
  reasons: {
    title: 'Prepared reasons',
    one: 'reason',
    many: 'reasons',
    once: 'its words',
    says:
      'What whoever decides can pick and edit instead of writing it: why something is sent back, rejected or ' +
      'asked.',
    out: 'retired',
    retire: 'retire them: offered no more',
    retires: (many) => `retire ${many}`,
  },
  taxes: {
    title: 'Taxes',
    one: 'tax code',
    many: 'tax codes',
    once: 'a code',
    says:
      'What is added to a price: keep the few that you really use. A rate that changes by law is a new code from ' +
      'then on; what was sent keeps the rate it was sent with.',
    out: 'retired',
    retire: 'retire them: offered no more',
    retires: (many) => `retire ${many}`,
  },
  holidays: {
    title: 'Holidays',
    one: 'holiday',
    many: 'holidays',
    once: 'a day',
    says: 'Days on which nobody works: need-by days, reminders and waiting times are counted without them.',
    out: 'worked after all',
    retire: 'work on them after all',
    retires: (many) => `let ${many} be worked`,
  },
  rates: {
    title: 'Exchange rates',
    one: 'rate',
    many: 'rates',
    once: 'a day and a currency',
    says: 'What one unit of your currency buys of others, day by day. A document keeps the rate it was computed with.',
    out: 'retired',
    retire: 'leave them',
    retires: (many) => `leave ${many}`,
  },
  people: {
    title: 'People',
    one: 'person',
    many: 'people',
    once: 'an e-mail address',
    says: 'Who raises, decides, buys and pays: their department, their manager, their limits and their roles.',
    out: 'gone',
    retire: 'let today be their last day',
    retires: (many) => `let ${many} leave today`,
  },
  roles: {
    title: 'Roles by part',
    one: 'role',
    many: 'roles',
    once: 'a person, a role and a department or place',
    says:
      'Who buys or receives for single departments, or for what goes to single places, and until when. Roles for the ' +
      'whole organisation stand with the person.',
    out: 'over',
    retire: 'end them today',
    retires: (many) => `end ${many} today`,
  },
  limits: {
    title: 'Limits for a time',
    one: 'limit',
    many: 'limits',
    once: 'a person, a limit and its first day',
    says:
      'Limits that hold on some days only, as while somebody stands in for another; on all others the limits count ' +
      'that stand with the person. Of two that hold, the one that began last counts.',
    out: 'over',
    retire: 'end them today',
    retires: (many) => `end ${many} today`,
  },
  suppliers: {
    title: 'Suppliers',
    one: 'supplier',
    many: 'suppliers',
    once: 'a number or a tax number',
    says: 'Whom you buy from: address, terms, and where orders are sent.',
    out: 'on hold',
    retire: 'put them on hold: nothing may be ordered from them',
    retires: (many) => `put ${many} on hold`,
  },
  items: {
    title: 'Items',
    one: 'item',
    many: 'items',
    once: 'a number, or a supplier and its part number',
    says: 'What can be bought from the Catalogue: from whom, at which prices, how fast.',
    out: 'retired',
    retire: 'retire them: found no more in the Catalogue',
    retires: (many) => `retire ${many}`,
  },
  'budget-lines': {
    title: 'Budget lines',
    one: 'budget line',
    many: 'budget lines',
    once: 'a year, department, account and project',
    says: 'What each department may spend on each account in a year, and what happens when it is passed.',
    out: 'retired',
    retire: 'retire them: they pay for nothing more',
    retires: (many) => `retire ${many}`,
  },
  opening: {
    title: 'From before',
    one: 'opening balance',
    many: 'opening balances',
    once: 'a budget line, a period, a stage and a number',
    says:
      'What was spent of this year’s budget lines before Rekko, and orders that are still open elsewhere: both count ' +
      'from the day they stand here. An order that was billed elsewhere is over here, and spent in a row of its own.',
    out: 'over',
    retire: 'let them be over: they weigh on no budget',
    retires: (many) => `let ${many} be over`,
  },
  jobs: {
    title: 'Jobs',
    one: 'job',
    many: 'jobs',
    once: 'a number',
    says: 'Pieces of your own work that things are bought for: named on requests and lines, and told apart in Mine.',
    out: 'closed',
    retire: 'close them: named on nothing new',
    retires: (many) => `close ${many}`,
  },
  parts: {
    title: 'Parts of jobs',
    one: 'part',
    many: 'parts',
    once: 'a job and a part number',
    says: 'What each job needs: an item or a few words, how many, and what one should cost. Its page raises them.',
    out: 'taken off',
    retire: 'leave them',
    retires: (many) => `leave ${many}`,
  },
}

/** What is wrong with a row, without which row it is. */
export function sayListReason(list: ListDefinition, r: ListReason): string {
  const column = 'column' in r ? (list.columns.find((c) => c.key === r.column)?.name ?? r.column) : ''
  switch (r.code) {
    case 'missing':
      return `“${column}” is empty.`
    case 'too-long':
      return `“${column}” has more than ${r.most} characters.`
    case 'no-number':
      return `“${r.text}” under “${column}” is no number.`
    case 'no-day':
      return `“${r.text}” under “${column}” is no day; write it like 2026-12-31.`
    case 'no-mail':
      return `“${r.text}” is no e-mail address.`
    case 'no-currency':
      return `“${r.text}” is no currency; write its three letters, such as EUR.`
    case 'no-unit':
      return `“${r.text}” is no unit that is kept; write a name such as kg or box, or a code such as KGM or BX.`
    case 'no-steps':
      return `“${r.text}” is no price; write one, such as 4.20, or several by quantity: 4.20; 10: 3.90.`
    case 'check-digit':
      return `“${r.text}” under “${column}” has a wrong check digit: one of its characters is mistyped.`
    case 'no-budget-line':
      return `There is no budget line “${r.text}”; it is entered first.`
    case 'not-one-part':
      return 'It is for a department or for a place: say one of the two. Roles for everything stand with the person.'
    case 'ends-before-it-begins':
      return 'It ends before it begins.'
    case 'order-without-number':
      return 'What is committed is an order: say its number elsewhere.'
    case 'taxed-at-nothing':
      return 'What is taxed has a rate above 0; without one it is “at zero”, or “exempt”.'
    case 'untaxed-at-a-rate':
      return 'Only what is taxed has a rate; every other kind stands at 0.'
    case 'beyond':
      return `“${column}” lies between ${r.least} and ${r.most}.`
    case 'decimals':
      return `“${column}” ${r.decimals === 0 ? 'is a whole number' : `has at most ${r.decimals} decimals`}.`
    case 'no-choice':
      return `“${r.text}” under “${column}” is none of ${r.among.join(', ')}.`
    case 'unknown':
      return `“${r.text}” under “${column}” is not known here.`
    case 'circle':
      return `“${r.text}” under “${column}” would close a circle.`
    case 'twice':
      return `It says the same key as row ${r.row}.`
  }
}

/** A step of setting up, as it stands. */
export function saySetUpStep({ code, count, done }: Pick<SetUpStep, 'code' | 'count' | 'done'>): string {
  const counted = (one: string, many: string) => capital(formatCount(count, one, many))
  switch (code) {
    case 'departments':
      return done ? `${counted('department', 'departments')} may raise.` : 'There is no department to raise for.'
    case 'places':
      return done
        ? `${counted('place', 'places')} may be delivered to.`
        : 'There is no place that deliveries could come to.'
    case 'accounts':
      return done ? `${counted('account is', 'accounts are')} kept.` : 'There is no account to spend on.'
    case 'budgetLines':
      return done
        ? `${counted('budget line pays', 'budget lines pay')} this year.`
        : 'No budget line of this year pays for anything.'
    case 'people':
      return done
        ? `${counted('person is', 'people are')} here.`
        : 'You are alone: nobody could decide what you ask for, nor ask for what you decide.'
    case 'suppliers':
      return done ? `${counted('supplier', 'suppliers')} may be ordered from.` : 'There is no supplier to order from.'
    case 'reached':
      return done ? 'Each can be reached by e-mail.' : 'Each supplier needs an e-mail address that orders go to.'
    case 'buyers':
      return done ? `${counted('buyer', 'buyers')} may order.` : 'Nobody is a buyer with a limit for ordering.'
    case 'uninvited':
      return done
        ? 'Everybody has chosen a password.'
        : `${counted('person has', 'people have')} no password yet and cannot sign in.`
  }
}

/** Why a change cannot be taken back: somebody changed some of its entries since. */
export function sayChangedSince(count: number): string {
  const [were, them] = count === 1 ? ['One entry was', 'it'] : [`${count} entries were`, 'them']
  return `${were} changed since; change ${them} by hand instead.`
}
