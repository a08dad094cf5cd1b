import { accountRoutes } from '#shared/contract/account'
import { route } from '../../http/route'
import { dropToken } from '../../session/tokens'

export default route(accountRoutes.endToken, ({ ctx, params }) => dropToken(ctx, params.id))
