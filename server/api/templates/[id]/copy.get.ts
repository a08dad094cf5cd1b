import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../../../http/route'
import { beginFromTemplate } from '../../../regulars/begin'

export default route(regularsRoutes.beginFromTemplate, ({ ctx, params }) => beginFromTemplate(ctx, params.id))
