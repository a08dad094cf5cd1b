import { accountRoutes } from '#shared/contract/account'
import { route } from '../http/route'
import { keepProfile } from '../session/keep-profile'

export default route(accountRoutes.keepProfile, ({ ctx, body }) => keepProfile(ctx, body))
