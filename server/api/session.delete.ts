import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { signOut } from '../session/sign-in'

export default route(sessionRoutes.signOut, ({ ctx, event }) => signOut(ctx, event))
