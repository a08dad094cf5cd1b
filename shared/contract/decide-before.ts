import { decideRoutes } from './decide'
import type { RouteSpec } from './route'

/** A route as it was while nothing but requests was decided on. */
const before = <S extends RouteSpec & { readonly path: string }>(name: string, route: S): S => ({
  ...route,
  name,
  path: route.path.replace('/api/documents/', '/api/requisitions/'),
  summary: `Until the second release after this: ${route.summary} Below /api/documents it is for orders too.`,
})

export const decideBeforeRoutes = {
  readDecision: before('readRequestDecision', decideRoutes.readDecision),
  decideDocument: before('decideRequisition', decideRoutes.decideDocument),
  takeBackDecision: before('takeBackRequestDecision', decideRoutes.takeBackDecision),
  askQuestion: before('askRequestQuestion', decideRoutes.askQuestion),
  answerQuestion: before('answerRequestQuestion', decideRoutes.answerQuestion),
  handSeat: before('handRequestSeat', decideRoutes.handSeat),
  callBack: before('callRequestBack', decideRoutes.callBack),
} as const
