import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { invitePeople } from '../session/password-key'

export default route(sessionRoutes.invitePeople, ({ ctx }) => invitePeople(ctx))
