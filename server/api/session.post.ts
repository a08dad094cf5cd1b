import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { signIn } from '../people/sign-in'

export default route(sessionRoutes.signIn, ({ ctx, event, body }) => signIn(ctx, event, body))
