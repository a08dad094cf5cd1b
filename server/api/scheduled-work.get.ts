import { scheduledRoutes } from '#shared/contract/scheduled'
import { route } from '../http/route'
import { readScheduled } from '../upkeep/scheduled-work'

export default route(scheduledRoutes.listScheduled, ({ ctx }) => readScheduled(ctx))
