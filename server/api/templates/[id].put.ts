import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../../http/route'
import { changeTemplate } from '../../regulars/templates'

export default route(regularsRoutes.changeTemplate, ({ ctx, params, version, body }) =>
  changeTemplate(ctx, params.id, version, body),
)
