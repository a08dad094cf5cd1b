import { sessionRoutes } from '#shared/contract/session'
import { route } from '../../http/route'
import { signInDemo } from '../../session/sign-in'

export default route(sessionRoutes.signInDemo, ({ ctx, event, body }) => signInDemo(ctx, event, body.personId))
