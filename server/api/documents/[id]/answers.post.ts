import { decideRoutes } from '#shared/contract/decide'
import { decisionRoutes } from '../../../decide/decision-routes'

export default decisionRoutes(decideRoutes).answer()
