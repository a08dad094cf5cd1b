import type { z } from 'zod'
import type { RouteSpec } from './route'
import { accountRoutes } from './account'
import { agreementRoutes } from './agreement'
import { budgetRoutes } from './budget'
import { decideRoutes } from './decide'
import { decideBeforeRoutes } from './decide-before'
import { decidedRoutes } from './decided'
import { scheduledRoutes } from './scheduled'
import { waitingRoutes } from './waiting'
import { mineRoutes } from './mine'
import { trailRoutes } from './trail'
import { catalogueRoutes } from './catalogue'
import { findRoutes } from './find'
import { firstStartRoutes } from './first-start'
import { lookBackRoutes } from './look-back'
import { listRoutes } from './lists'
import { organisationRoutes } from './organisation'
import { callOffRoutes } from './call-off'
import { orderRoutes } from './order'
import { orderAnswerRoutes } from './order-answer'
import { orderChangeRoutes } from './order-change'
import { orderTalkRoutes } from './order-talk'
import { ownerRoutes } from './owner'
import { peopleRoutes } from './people'
import { proposalRoutes } from './proposal'
import { regularsRoutes } from './regulars'
import { policyRoutes } from './policy'
import { requestFormRoutes } from './request-form'
import { requisitionRoutes } from './requisition'
import { sessionRoutes } from './session'
import { jobRoutes } from './job'
import { orderingRoutes } from './ordering'
import { personalRoutes } from './personal'
import { supplierRoutes } from './supplier'
import { yearEndRoutes } from './year-end'

const ROUTES = {
  ...sessionRoutes,
  ...accountRoutes,
  ...peopleRoutes,
  ...catalogueRoutes,
  ...supplierRoutes,
  ...agreementRoutes,
  ...jobRoutes,
  ...personalRoutes,
  ...requisitionRoutes,
  ...mineRoutes,
  ...decideRoutes,
  ...decidedRoutes,
  ...waitingRoutes,
  ...scheduledRoutes,
  ...trailRoutes,
  ...lookBackRoutes,
  ...budgetRoutes,
  ...yearEndRoutes,
  ...orderRoutes,
  ...proposalRoutes,
  ...orderingRoutes,
  ...orderAnswerRoutes,
  ...orderChangeRoutes,
  ...callOffRoutes,
  ...orderTalkRoutes,
  ...ownerRoutes,
  ...regularsRoutes,
  ...policyRoutes,
  ...requestFormRoutes,
  ...listRoutes,
  ...organisationRoutes,
  ...firstStartRoutes,
  ...findRoutes,
}

/** Every route there is: the API's description, the walk over all of them and the house rules read it. */
export const ALL_ROUTES: readonly RouteSpec[] = [...Object.values(ROUTES), ...Object.values(decideBeforeRoutes)]

/**
 * Any route, as its description has it. Pages take these types and nothing else of the contract: they weigh nothing.
 */
export type AnyRoute = (typeof ROUTES)[keyof typeof ROUTES]

/** The route at a method and path. */
export type RouteAt<M extends AnyRoute['method'], P extends AnyRoute['path']> = Extract<
  AnyRoute,
  { readonly method: M; readonly path: P }
>

/** What a part of a route takes, as it is sent. */
export type Input<S extends AnyRoute, K extends 'params' | 'query' | 'body'> = z.input<S[K]>

/** What a route answers. */
export type Reply<S extends AnyRoute> = z.output<S['reply']>
