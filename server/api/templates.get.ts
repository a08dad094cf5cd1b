import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../http/route'
import { listTemplates } from '../regulars/templates'

export default route(regularsRoutes.listTemplates, ({ ctx }) => listTemplates(ctx))
