import { callOffRoutes } from '#shared/contract/call-off'
import { route } from '../../../http/route'
import { callOff } from '../../../order/call-off'

export default route(callOffRoutes.callOff, ({ ctx, params, body, version }) => callOff(ctx, params.id, version, body))
