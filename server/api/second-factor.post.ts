import { accountRoutes } from '#shared/contract/account'
import { route } from '../http/route'
import { beginSecondFactor } from '../session/second-factor'

export default route(accountRoutes.beginSecondFactor, ({ ctx }) => beginSecondFactor(ctx))
