import type { ColumnKind, ListColumn, ListDefinition, ListName } from './list'

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
      column('taxNumber', 'Tax number', text(40), '', 'vat, vat number, vat id, tax id'),
      column('freight', 'Freight', amount, '', 'delivery charge, shipping'),
      column('freightFree', 'Freight-free from', amount, '', 'free delivery from, carriage paid from'),
      column('warning', 'Warning', text(500), '', 'note, remark'),
      column(
        'standing',
        'Standing',
        { is: 'choice', among: ['active', 'on hold'] },
        'active',
        'status, state',
        'One on hold may not be asked for and not be ordered from.',
      ),
    ],
    retire: { column: 'standing', as: { text: 'on hold' } },
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
      retiredColumn,
    ],
    retire,
  },
}
