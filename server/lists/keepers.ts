import type { ListName } from '#core/lists/list'
import { accounts } from './account-store'
import { budgetLines } from './budget-line-store'
import { categories } from './category-store'
import { departments } from './department-store'
import { holidays } from './holiday-store'
import { items } from './item-store'
import { jobs } from './job-store'
import type { ListKeeper } from './keeper'
import { limits } from './limit-store'
import { opening } from './opening-store'
import { parts } from './part-store'
import { people } from './person-store'
import { places } from './place-store'
import { rates } from './rate-store'
import { reasons } from './reason-store'
import { roles } from './role-store'
import { suppliers } from './supplier-store'
import { taxes } from './tax-store'

/** How each list is kept. */
export const KEEPERS: Readonly<Record<ListName, ListKeeper>> = {
  places,
  departments,
  accounts,
  categories,
  taxes,
  holidays,
  rates,
  people,
  roles,
  limits,
  suppliers,
  items,
  'budget-lines': budgetLines,
  opening,
  jobs,
  parts,
  reasons,
}
