import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../http/route'
import { makeTemplate } from '../regulars/templates'

export default route(regularsRoutes.makeTemplate, ({ ctx, body }) => makeTemplate(ctx, body))
