import { personalRoutes } from '#shared/contract/personal'
import { route } from '../../../http/route'
import { letLeave } from '../../../personal/leave'

export default route(personalRoutes.letPersonLeave, ({ ctx, params, body }) => letLeave(ctx, params.id, body))
