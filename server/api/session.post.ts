import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { countSignInTry, noteRefusal, signIn } from '../session/sign-in'

export default route(sessionRoutes.signIn, ({ ctx, event, body }) => signIn(ctx, event, body), {
  before: ({ ctx, event, body }) => countSignInTry(ctx, event, body),
  refused: ({ ctx, event, body }, problem) => noteRefusal(ctx, event, body, problem),
})
