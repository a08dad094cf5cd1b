import { LISTS } from '#core/lists/definitions'
import type { ListColumn, ListName } from '#core/lists/list'

/** What of each list stands in its table; the rest is in the entry itself. */
const SHOWN: Readonly<Record<ListName, readonly string[]>> = {
  places: ['name', 'street', 'postcode', 'town', 'country'],
  departments: ['name', 'costCentre', 'parent', 'reclaimable', 'usualPlace'],
  accounts: ['name', 'code'],
  reasons: ['text', 'use'],
  people: ['name', 'department', 'manager', 'roles', 'ownLimit', 'decidingLimit', 'orderingLimit'],
  roles: ['person', 'role', 'department', 'place', 'from', 'until'],
  limits: ['person', 'limit', 'amount', 'from', 'until'],
  suppliers: ['name', 'number', 'town', 'email', 'currency', 'warning'],
  categories: ['name', 'parent', 'account'],
  taxes: ['name', 'code', 'rate', 'category'],
  holidays: ['name', 'day', 'isOff'],
  rates: ['day', 'currency', 'rate'],
  items: ['name', 'number', 'category', 'supplier', 'prices', 'unit', 'leadDays'],
  jobs: ['name', 'number', 'department', 'project'],
  parts: ['name', 'job', 'part', 'quantity', 'unit', 'estimate'],
  opening: ['name', 'year', 'department', 'account', 'period', 'stage', 'number', 'amount'],
  'budget-lines': ['name', 'department', 'account', 'year', 'amount', 'holder', 'control'],
}

export const shownColumns = (list: ListName): ListColumn[] =>
  SHOWN[list].flatMap((key) => LISTS[list].columns.find((c) => c.key === key) ?? [])
