import { accountRoutes } from '#shared/contract/account'
import { route } from '../http/route'
import { countCode, renewCodes } from '../session/second-factor'

export default route(accountRoutes.renewRecoveryCodes, ({ ctx, event, body }) => renewCodes(ctx, event, body.code), {
  before: ({ ctx, event }) => countCode(ctx, event),
})
