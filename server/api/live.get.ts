import { sessionRoutes } from '#shared/contract/session'
import { route } from '../http/route'
import { followChanges } from '../live/follow-changes'

export default route(sessionRoutes.followChanges, ({ event }) => followChanges(event))
