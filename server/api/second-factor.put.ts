import { accountRoutes } from '#shared/contract/account'
import { route } from '../http/route'
import { confirmSecondFactor, countCode } from '../session/second-factor'

export default route(
  accountRoutes.confirmSecondFactor,
  ({ ctx, event, body }) => confirmSecondFactor(ctx, event, body.code),
  { before: ({ ctx, event }) => countCode(ctx, event) },
)
