import { accountRoutes } from '#shared/contract/account'
import { route } from '../http/route'
import { readProfile } from '../session/keep-profile'

export default route(accountRoutes.readProfile, ({ ctx }) => readProfile(ctx))
