import { decideBeforeRoutes } from '#shared/contract/decide-before'
import { decisionRoutes } from '../../../decide/decision-routes'

export default decisionRoutes(decideBeforeRoutes).hand()
