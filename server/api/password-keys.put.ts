import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { choosePassword } from '../session/password-key'

export default route(sessionRoutes.choosePassword, ({ ctx, event, body }) => choosePassword(ctx, event, body))
