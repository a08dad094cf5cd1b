import { REASON_USES } from '#core/approval/reasons'
import { dec } from '#core/base/decimal'
import { TELL_SHARES } from '#core/budget/share'
import { DRAWINGS } from '#core/catalogue/drawing'
import { LOCALES } from '#core/people/locale'
import { LIMIT_NAMES } from '#core/people/person'
import { ROLES_BY_PART } from '#core/people/rights'
import { LANGUAGES } from '#core/supplier/language'
import type { ColumnKind, ListColumn, ListDefinition, ListName, Values } from './list'
import type { ListReason } from './reason'

const LARGEST = '999999999999'
const text = (most: number): ColumnKind => ({ is: 'text', most })
const amount: ColumnKind = { is: 'number', least: '0', most: LARGEST, decimals: 4 }
const money: ColumnKind = { ...amount, isMoney: true }
const whole = (least: number, most: number): ColumnKind => ({
  is: 'number',
  least: String(least),
  most: String(most),
  decimals: 0,
})

/** A column: key, heading, kind, what a new entry holds (null: it has to be said), other headings, and help. */
function column(
  key: string,
  name: string,
  kind: ColumnKind,
  initial: string | null,
  also: string,
  help = '',
): ListColumn {
  return { key, name, kind, initial, also: also.split(', ').filter((a) => a !== ''), help }
}
const retiredColumn = column(
  'retired',
  'Retired',
  { is: 'choice', among: ['no', 'yes'] },
  'no',
  'closed, ended, inactive',
  'What is retired is offered no more; what names it keeps it.',
)
const retire = { column: 'retired', as: { text: 'yes' } } as const
const perPrice: ColumnKind = { is: 'number', least: '0.000001', most: LARGEST, decimals: 6 }

/** The categories of tax of EN 16931, in words, with their codes in UNCL5305. */
export const TAX_CATEGORIES = {
  taxed: 'S',
  'at zero': 'Z',
  exempt: 'E',
  'reverse charge': 'AE',
  'within the union': 'K',
  export: 'G',
  'outside of tax': 'O',
} as const

/** EN 16931, BR-S-05 and BR-Z-05, BR-E-05, BR-AE-05, BR-IC-05, BR-G-05, BR-O-05: only the standard one has a rate. */
function checkTax(v: Values): ListReason[] {
  const isTaxed = v.category === 'taxed'
  const isNothing = dec(v.rate ?? '0').isZero()
  if (isTaxed === isNothing) return [{ code: isTaxed ? 'taxed-at-nothing' : 'untaxed-at-a-rate' }]
  return []
}

const checkDays = (v: Values): ListReason[] =>
  (v.until ?? '') !== '' && (v.from ?? '') > (v.until ?? '') ? [{ code: 'ends-before-it-begins' }] : []

/** Every list, with its columns in the order of the page and of the file. */
export const LISTS: Readonly<Record<ListName, ListDefinition>> = {
  places: {
    name: 'places',
    right: 'keep settings',
    key: ['name'],
    columns: [
      column('name', 'Name', text(100), null, 'ship-to, place, location, site', 'As people say it: “Goods yard”.'),
      column('street', 'Street', text(200), null, 'address, street and number'),
      column('postcode', 'Postcode', text(20), '', 'zip, postal code, post code'),
      column('town', 'Town', text(100), null, 'city'),
      column('country', 'Country', text(60), null, 'country code'),
      retiredColumn,
    ],
    retire,
  },
  departments: {
    name: 'departments',
    right: 'keep settings',
    key: ['costCentre'],
    columns: [
      column('costCentre', 'Cost centre', text(20), null, 'cost center, code, number, department code, cc'),
      column('name', 'Name', text(100), null, 'department, department name'),
      column('parent', 'Part of', { is: 'entry', of: 'departments' }, '', 'parent, belongs to, above'),
      column(
        'reclaimable',
        'Reclaims of tax, %',
        { is: 'number', least: '0', most: '100', decimals: 2 },
        '0',
        'reclaimable, reclaimable tax, vat reclaim',
        'What share of the tax on its purchases comes back; the rest is felt by its budgets.',
      ),
      column('usualPlace', 'Usual place', { is: 'entry', of: 'places' }, '', 'ship-to, deliver to, place'),
      retiredColumn,
    ],
    retire,
  },
  accounts: {
    name: 'accounts',
    right: 'keep budgets',
    key: ['code'],
    columns: [
      column('code', 'Account', text(20), null, 'account code, code, number, account number, gl, g/l'),
      column('name', 'Name', text(100), null, 'account name, description'),
      retiredColumn,
    ],
    retire,
  },
  reasons: {
    name: 'reasons',
    right: 'keep settings',
    key: ['text'],
    columns: [
      column('text', 'Reason', text(300), null, 'text, words, sentence', 'As it is said to whoever asked.'),
      column(
        'use',
        'For',
        { is: 'choice', among: REASON_USES },
        'all',
        'use, used for, decision',
        'When it is offered: with any decision, or with one of them only.',
      ),
      retiredColumn,
    ],
    retire,
  },
  categories: {
    name: 'categories',
    right: 'keep catalogue',
    key: ['name'],
    columns: [
      column('name', 'Category', text(100), null, 'name, category name, commodity, group'),
      column('parent', 'Part of', { is: 'entry', of: 'categories' }, '', 'parent, belongs to, above'),
      column(
        'account',
        'Account',
        { is: 'entry', of: 'accounts' },
        '',
        'account code, gl, g/l',
        'What is proposed to pay for it.',
      ),
      column(
        'drawing',
        'Drawing',
        { is: 'choice', among: DRAWINGS },
        'box',
        'picture, symbol',
        'What stands beside its items that have no picture.',
      ),
      retiredColumn,
    ],
    retire,
  },
  taxes: {
    name: 'taxes',
    right: 'keep budgets',
    key: ['code'],
    columns: [
      column('code', 'Code', text(10), null, 'tax code, key'),
      column('name', 'Name', text(60), null, 'tax, description'),
      column('rate', 'Rate, %', { is: 'number', least: '0', most: '100', decimals: 3 }, null, 'rate, percent, vat'),
      column(
        'category',
        'Kind of tax',
        { is: 'choice', among: Object.keys(TAX_CATEGORIES) },
        'taxed',
        'category, tax category',
        'Reverse charge: the buyer owes it. Only what is taxed has a rate.',
      ),
      retiredColumn,
    ],
    retire,
    check: checkTax,
  },
  holidays: {
    name: 'holidays',
    right: 'keep settings',
    key: ['day'],
    columns: [
      column('day', 'Day', { is: 'day' }, null, 'date, holiday date'),
      column('name', 'Name', text(100), null, 'holiday'),
      column('isOff', 'Nobody works', { is: 'choice', among: ['no', 'yes'] }, 'yes', 'off, closed, day off'),
    ],
    retire: { column: 'isOff', as: { text: 'no' } },
  },
  rates: {
    name: 'rates',
    right: 'keep budgets',
    key: ['day', 'currency'],
    columns: [
      column('day', 'Day', { is: 'day' }, null, 'date, valid from'),
      column('currency', 'Currency', { is: 'currency' }, null, 'cur, code'),
      column(
        'rate',
        'For one of ours',
        { is: 'number', least: '0.00000001', most: '9999999999', decimals: 8 },
        null,
        'rate, exchange rate, per base',
        'How many units of it one unit of the base currency buys. A day without a rate takes the newest earlier one.',
      ),
    ],
    retire: null,
  },
  people: {
    name: 'people',
    right: 'keep settings',
    key: ['email'],
    columns: [
      column('email', 'E-mail', { is: 'e-mail' }, null, 'email, mail, e-mail address, email address'),
      column('name', 'Name', text(100), null, 'full name, person, employee'),
      column('jobTitle', 'What they do', text(100), '', 'job, job title, title, function, position'),
      column('department', 'Department', { is: 'entry', of: 'departments' }, null, 'cost centre, cost center, unit'),
      column(
        'alsoFor',
        'Raises also for',
        { is: 'entry', of: 'departments', several: true },
        '',
        'also for, other departments',
        'Departments besides their own.',
      ),
      column('manager', 'Manager', { is: 'entry', of: 'people' }, '', 'reports to, line manager, supervisor'),
      column(
        'roles',
        'Roles',
        { is: 'choices', among: ['buyer', 'receiver', 'finance', 'auditor', 'administrator'] },
        '',
        'role',
        'For the whole organisation; everybody may raise without one.',
      ),
      column('ownLimit', 'Own limit', money, '', 'spending limit, requisition limit'),
      column('decidingLimit', 'Limit for deciding', money, '', 'deciding limit, approval limit'),
      column('orderingLimit', 'Limit for ordering', money, '', 'ordering limit, purchase limit'),
      column(
        'usualPlace',
        'Usual place',
        { is: 'entry', of: 'places' },
        '',
        'ship-to, deliver to, place',
        'Where what they raise for their own department goes; left empty, the department’s usual place.',
      ),
      column(
        'language',
        'Numbers and dates as in',
        { is: 'choice', among: Object.values(LOCALES) },
        LOCALES['en-GB'],
        'language, locale, country of numbers',
      ),
      column(
        'leftOn',
        'Last day',
        { is: 'day' },
        '',
        'left on, leaves on, leaving date',
        'They sign in up to and including this day.',
      ),
    ],
    retire: { column: 'leftOn', as: 'today' },
  },
  roles: {
    name: 'roles',
    right: 'keep settings',
    key: ['person', 'role', 'department', 'place'],
    columns: [
      column('person', 'Person', { is: 'entry', of: 'people' }, null, 'e-mail, email, who'),
      column('role', 'Role', { is: 'choice', among: ROLES_BY_PART }, null, 'as'),
      column('department', 'For the department', { is: 'entry', of: 'departments' }, '', 'department, cost centre'),
      column('place', 'For the place', { is: 'entry', of: 'places' }, '', 'place, ship-to, location'),
      column('from', 'From', { is: 'day' }, '', 'first day, begins, valid from', 'Left empty, it holds already.'),
      column('until', 'Until', { is: 'day' }, '', 'to, last day, ends, valid to', 'It still holds on this day.'),
    ],
    retire: { column: 'until', as: 'today' },
    check: (v) => [
      ...(((v.department ?? '') === '') === ((v.place ?? '') === '') ? [{ code: 'not-one-part' } as const] : []),
      ...checkDays(v),
    ],
  },
  limits: {
    name: 'limits',
    right: 'keep settings',
    key: ['person', 'limit', 'from'],
    columns: [
      column('person', 'Person', { is: 'entry', of: 'people' }, null, 'e-mail, email, who'),
      column(
        'limit',
        'Limit',
        { is: 'choice', among: LIMIT_NAMES },
        null,
        'kind, which limit',
        'own: what they raise themselves; deciding: what waits for them; ordering: their purchase orders.',
      ),
      column('amount', 'Up to', money, null, 'amount, highest amount, limit amount', 'Up to and including.'),
      column('from', 'From', { is: 'day' }, null, 'first day, begins, valid from'),
      column('until', 'Until', { is: 'day' }, '', 'to, last day, ends, valid to', 'It still holds on this day.'),
    ],
    retire: { column: 'until', as: 'today' },
    check: checkDays,
  },
  suppliers: {
    name: 'suppliers',
    right: 'approve suppliers',
    key: ['number'],
    columns: [
      column('number', 'Number', text(30), null, 'supplier number, supplier no, vendor number, creditor, code'),
      column('name', 'Name', text(200), null, 'supplier, supplier name, company, vendor'),
      column('address', 'Address', text(300), '', 'street, street and number'),
      column('town', 'Town', text(100), '', 'city'),
      column('email', 'E-mail for orders', { is: 'e-mail' }, '', 'email, e-mail, order email, mail'),
      column('telephone', 'Telephone', text(60), '', 'phone'),
      column('currency', 'Currency', { is: 'currency' }, null, 'cur'),
      column('terms', 'Terms', { is: 'choice', among: ['net', 'month-end'] }, 'net', 'payment terms'),
      column('termsDays', 'Days to pay', whole(0, 365), '30', 'days, payment days, net days'),
      column('leadDays', 'Days to deliver', whole(0, 999), '5', 'lead days, lead time, delivery days'),
      column(
        'taxNumber',
        'Tax number',
        { is: 'tax number' },
        '',
        'vat, vat number, vat id, tax id',
        'With its country’s letters in front its check digits are looked at.',
      ),
      column('freight', 'Freight', amount, '', 'delivery charge, shipping'),
      column('freightFree', 'Freight-free from', amount, '', 'free delivery from, carriage paid from'),
      column('minimumOrder', 'Minimum order', amount, '', 'minimum order value, least order'),
      column(
        'language',
        'Language of orders',
        { is: 'choice', among: Object.values(LANGUAGES) },
        'English',
        'language, document language',
      ),
      column('warning', 'Warning', text(500), '', 'note, remark'),
      column(
        'standing',
        'Standing',
        { is: 'choice', among: ['active', 'on hold', 'blocked'] },
        'active',
        'status, state',
        'One on hold, or blocked, may not be asked for and not be ordered from; its page says why.',
      ),
    ],
    retire: { column: 'standing', as: { text: 'on hold' } },
  },
  items: {
    name: 'items',
    right: 'keep catalogue',
    key: ['number'],
    otherKey: ['supplier', 'supplierPart'],
    columns: [
      column(
        'number',
        'Item',
        text(100),
        '',
        'item number, number, code, article, article number, sku',
        'Left empty, it is the supplier’s number and theirs, with a hyphen between.',
      ),
      column('name', 'Name', text(200), null, 'item name, title, short text'),
      column('description', 'Description', text(1000), '', 'long text, details'),
      column('category', 'Category', { is: 'entry', of: 'categories' }, null, 'commodity, group'),
      column('supplier', 'Supplier', { is: 'entry', of: 'suppliers' }, null, 'supplier number, vendor, creditor'),
      column('supplierPart', 'Their number', text(60), null, 'supplier part number, part number, supplier part, part'),
      column('unit', 'Unit', { is: 'unit' }, 'H87', 'unit of measure, uom, measure'),
      column(
        'prices',
        'Prices from today',
        { is: 'steps' },
        '',
        'price, prices, unit price, price steps, net price',
        'One price, or prices by quantity: “4.20; 10: 3.90; 50: 3.50”. One that changes holds from today on.',
      ),
      column(
        'per',
        'Price per',
        perPrice,
        '1',
        'price base, price unit, per quantity',
        'A price for 100 says 100 here.',
      ),
      column('currency', 'Currency', { is: 'currency' }, null, 'cur'),
      column('tax', 'Tax', { is: 'entry', of: 'taxes' }, null, 'tax code, vat'),
      column('leadDays', 'Days to deliver', whole(0, 999), '5', 'lead days, lead time, delivery days'),
      column(
        'pack',
        'Comes by',
        perPrice,
        '',
        'pack size, pack, order multiple',
        'How many units a pack of the supplier holds; the Catalogue shows it.',
      ),
      column(
        'agreed',
        'By agreement',
        { is: 'choice', among: ['no', 'yes'] },
        'no',
        'agreement, under agreement, contract',
      ),
      column('warning', 'Warning', text(500), '', 'note, remark'),
      column(
        'warns',
        'The warning',
        { is: 'choice', among: ['informs', 'must be read', 'stops'] },
        'informs',
        'warning mode, how it warns',
        'informs: it is shown; must be read: before sending; stops: nothing is sent.',
      ),
      column(
        'sameAs',
        'Same thing as',
        { is: 'entry', of: 'items' },
        '',
        'same as, alternative to, equals',
        'Another supplier’s item that is as good; the Catalogue shows their prices side by side.',
      ),
      column(
        'successor',
        'Successor',
        { is: 'entry', of: 'items' },
        '',
        'replaced by, follows',
        'What is offered instead once it is retired.',
      ),
      retiredColumn,
    ],
    retire,
  },
  'budget-lines': {
    name: 'budget-lines',
    right: 'keep budgets',
    key: ['year', 'department', 'account', 'project'],
    columns: [
      column('year', 'Fiscal year', whole(1990, 2200), null, 'year, budget year'),
      column('department', 'Department', { is: 'entry', of: 'departments' }, null, 'cost centre, cost center'),
      column('account', 'Account', { is: 'entry', of: 'accounts' }, null, 'account code, gl, g/l'),
      column('project', 'Project', text(20), '', 'project code, fund'),
      column('name', 'Name', text(100), null, 'budget line, line, description'),
      column(
        'amount',
        'Amount for the year',
        { is: 'number', least: '0', most: LARGEST, decimals: 2, isMoney: true },
        null,
        'amount, budget, budgeted, total',
        'An amount that changes is spread evenly over the twelve periods.',
      ),
      column('holder', 'Budget holder', { is: 'entry', of: 'people' }, '', 'holder, responsible, owner'),
      column(
        'control',
        'When it is passed',
        { is: 'choice', among: ['tells', 'asks', 'refuses'] },
        'tells',
        'control',
        'tells: it is shown; asks: sending needs a reason; refuses: nothing is sent.',
      ),
      column('below', 'May fall below by', money, '0', 'tolerance, may fall below'),
      column(
        'span',
        'Checked over',
        { is: 'choice', among: ['year', 'to date', 'period'] },
        'year',
        'checked, span',
        'the whole year, the year up to the month, or the month alone.',
      ),
      column(
        'tellAt',
        'Told at (%)',
        { is: 'choices', among: TELL_SHARES.map(String) },
        '',
        'told at, alerts, warning shares',
        'The shares of what it was given at which whoever holds it is told, once.',
      ),
      retiredColumn,
    ],
    retire,
  },
  opening: {
    name: 'opening',
    right: 'keep budgets',
    key: ['year', 'department', 'account', 'project', 'period', 'stage', 'number'],
    within: 'budget-lines',
    columns: [
      column('year', 'Fiscal year', whole(1990, 2200), null, 'year, budget year'),
      column('department', 'Department', { is: 'entry', of: 'departments' }, null, 'cost centre, cost center'),
      column('account', 'Account', { is: 'entry', of: 'accounts' }, null, 'account code, gl, g/l'),
      column('project', 'Project', text(20), '', 'project code, fund'),
      column('period', 'Period', whole(1, 12), null, 'month, month of the fiscal year'),
      column(
        'stage',
        'Stage',
        { is: 'choice', among: ['spent', 'committed'] },
        'spent',
        'what, kind',
        'spent: billed before; committed: an order that is still open elsewhere.',
      ),
      column(
        'number',
        'Number elsewhere',
        text(60),
        '',
        'number, order number, order, reference, document',
        'Of an order: what it is called where it was written.',
      ),
      column('supplier', 'Supplier', { is: 'entry', of: 'suppliers' }, '', 'supplier number, vendor, creditor'),
      column('name', 'What', text(200), null, 'description, text, name'),
      column(
        'amount',
        'Amount',
        { is: 'number', least: '-999999999999', most: LARGEST, decimals: 2, isMoney: true },
        null,
        'open amount, balance, net',
        'As the budget feels it: without the tax that comes back.',
      ),
      column(
        'over',
        'Over',
        { is: 'choice', among: ['no', 'yes'] },
        'no',
        'closed, done, billed',
        'What is over weighs on the budget line no more.',
      ),
    ],
    retire: { column: 'over', as: { text: 'yes' } },
    check: (v) => (v.stage === 'committed' && (v.number ?? '') === '' ? [{ code: 'order-without-number' }] : []),
  },
  jobs: {
    name: 'jobs',
    right: 'keep settings',
    key: ['number'],
    columns: [
      column('number', 'Number', text(40), null, 'job, job number, work order, project number'),
      column('name', 'Name', text(200), null, 'job name, description, title'),
      column('department', 'Department', { is: 'entry', of: 'departments' }, '', 'cost centre, cost center'),
      column('project', 'Project', text(20), '', 'project code, fund'),
      column(
        'open',
        'Open',
        { is: 'choice', among: ['yes', 'no'] },
        'yes',
        'is open, active, state',
        'A job that is closed is offered no more; what names it keeps it.',
      ),
    ],
    retire: { column: 'open', as: { text: 'no' } },
  },
  parts: {
    name: 'parts',
    right: 'keep settings',
    key: ['job', 'part'],
    columns: [
      column('job', 'Job', { is: 'entry', of: 'jobs' }, null, 'job number, work order, project number'),
      column('part', 'Part', text(40), null, 'part, position, pos, line, no'),
      column(
        'item',
        'Item',
        { is: 'entry', of: 'items' },
        '',
        'item number, article, sku, code',
        'An item of the catalogue; without one the words say what it is.',
      ),
      column('name', 'What', text(200), null, 'description, name, text, what is needed'),
      column('quantity', 'Quantity', { is: 'number', least: '0.000001', most: '999999999', decimals: 6 }, '1', 'qty'),
      column('unit', 'Unit', { is: 'unit' }, 'H87', 'unit of measure, uom, measure'),
      column(
        'estimate',
        'Estimate for one',
        { is: 'number', least: '0', most: '999999999999', decimals: 6, isMoney: true },
        '',
        'estimate, estimated price, price, unit price',
      ),
    ],
    retire: null,
  },
}
