import { accountRoutes } from '#shared/contract/account'
import { route } from '../http/route'
import { readFactor } from '../session/second-factor'

export default route(accountRoutes.readSecondFactor, ({ ctx }) => readFactor(ctx))
