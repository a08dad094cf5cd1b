import { accountRoutes } from '#shared/contract/account'
import { route } from '../../http/route'
import { countCode, endSecondFactor } from '../../session/second-factor'

export default route(accountRoutes.endSecondFactor, ({ ctx, event, body }) => endSecondFactor(ctx, event, body.code), {
  before: ({ ctx, event }) => countCode(ctx, event),
})
