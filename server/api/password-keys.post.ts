import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { countForgotten, mailForgotten } from '../session/password-key'

export default route(sessionRoutes.mailForgotten, ({ ctx, body }) => mailForgotten(ctx, body.email), {
  before: ({ ctx, event, body }) => countForgotten(ctx, event, body.email),
})
