import { sessionRoutes } from '#shared/contract/session'
import { route } from '../../http/route'
import { changePassword, countChangeTry, noteChangeRefusal } from '../../session/change-password'

export default route(sessionRoutes.changePassword, ({ ctx, event, body }) => changePassword(ctx, event, body), {
  before: ({ ctx, event }) => countChangeTry(ctx, event),
  refused: ({ ctx, event }, problem) => noteChangeRefusal(ctx, event, problem),
})
