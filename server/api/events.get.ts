import { lookBackRoutes } from '#shared/contract/look-back'
import { route } from '../http/route'
import { readEvents } from '../look-back/read-events'

export default route(lookBackRoutes.readEvents, ({ ctx, query }) => readEvents(ctx, query))
