import type { Place } from '~/composables/base/places'

/** The places of Set-up: who keeps what. */
export const SET_UP_PLACES: readonly Place[] = [
  { name: 'What is missing', path: '/set-up', right: 'keep lists' },
  { name: 'Organisation', path: '/set-up/organisation', right: 'keep lists' },
  { name: 'People', path: '/set-up/lists/people', right: 'keep settings' },
  { name: 'One person', path: '/set-up/person', right: 'keep settings' },
  { name: 'Departments', path: '/set-up/lists/departments', right: 'keep settings' },
  { name: 'Places', path: '/set-up/lists/places', right: 'keep settings' },
  { name: 'Accounts', path: '/set-up/lists/accounts', right: 'keep budgets' },
  { name: 'Budget lines', path: '/set-up/lists/budget-lines', right: 'keep budgets' },
  { name: 'Taxes', path: '/set-up/lists/taxes', right: 'keep budgets' },
  { name: 'Categories', path: '/set-up/lists/categories', right: 'keep catalogue' },
  { name: 'Item list', path: '/set-up/lists/items', right: 'keep catalogue' },
  { name: 'Supplier list', path: '/set-up/lists/suppliers', right: 'approve suppliers' },
  { name: 'Job list', path: '/set-up/lists/jobs', right: 'keep settings' },
  { name: 'Approval', path: '/set-up/approval', right: 'see policy' },
  { name: 'Ordering', path: '/set-up/ordering', right: 'see ordering rules' },
  { name: 'Scheduled work', path: '/set-up/scheduled', right: 'keep settings' },
  { name: 'Requests', path: '/set-up/requests', right: 'keep settings' },
]
