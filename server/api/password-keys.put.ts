import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { choosePassword, countKeyCode } from '../session/password-key'

export default route(sessionRoutes.choosePassword, ({ ctx, event, body }) => choosePassword(ctx, event, body), {
  before: ({ ctx, event, body }) => countKeyCode(ctx, event, body.key, body.code),
})
