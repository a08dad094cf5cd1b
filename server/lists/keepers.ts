import type { ListName } from '#core/lists/list'
import { accounts } from './account-store'
import { budgetLines } from './budget-line-store'
import { departments } from './department-store'
import type { ListKeeper } from './keeper'
import { people } from './person-store'
import { places } from './place-store'
import { suppliers } from './supplier-store'

/** How each list is kept. */
export const KEEPERS: Readonly<Record<ListName, ListKeeper>> = {
  places,
  departments,
  accounts,
  people,
  suppliers,
  'budget-lines': budgetLines,
}
