import { type RouteSpec } from './route'
import { budgetRoutes } from './budget'
import { catalogueRoutes } from './catalogue'
import { findRoutes } from './find'
import { orderRoutes } from './order'
import { peopleRoutes } from './people'
import { regularsRoutes } from './regulars'
import { requestFormRoutes } from './request-form'
import { requisitionRoutes } from './requisition'
import { sessionRoutes } from './session'
import { supplierRoutes } from './supplier'

/** Every route there is: the API's description, the walk over all of them and the house rules read it. */
export const ALL_ROUTES: readonly RouteSpec[] = [
  sessionRoutes,
  peopleRoutes,
  catalogueRoutes,
  supplierRoutes,
  requisitionRoutes,
  budgetRoutes,
  orderRoutes,
  regularsRoutes,
  requestFormRoutes,
  findRoutes,
].flatMap((area): RouteSpec[] => Object.values(area))
