import { trailRoutes } from '#shared/contract/trail'
import { route } from '../../../http/route'
import { readTrail } from '../../../trail/read-trail'

export default route(trailRoutes.readTrail, ({ ctx, params }) => readTrail(ctx, params.id))
