import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../../http/route'
import { removeTemplate } from '../../regulars/templates'

export default route(regularsRoutes.removeTemplate, ({ ctx, params, version }) =>
  removeTemplate(ctx, params.id, version),
)
