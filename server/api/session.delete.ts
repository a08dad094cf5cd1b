import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { signOut } from '../people/sign-in'

export default route(sessionRoutes.signOut, ({ ctx, event }) => signOut(ctx, event))
