import { accountRoutes } from '#shared/contract/account'
import { route } from '../http/route'
import { makeToken } from '../session/tokens'

export default route(accountRoutes.makeToken, ({ ctx, body }) => makeToken(ctx, body))
