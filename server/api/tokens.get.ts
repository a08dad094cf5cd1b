import { accountRoutes } from '#shared/contract/account'
import { route } from '../http/route'
import { readTokens } from '../session/tokens'

export default route(accountRoutes.listTokens, ({ ctx }) => readTokens(ctx))
