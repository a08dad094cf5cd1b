import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../http/route'
import { listRegulars } from '../regulars/regular-lists'

export default route(regularsRoutes.listRegulars, ({ ctx }) => listRegulars(ctx))
