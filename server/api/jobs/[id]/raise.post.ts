import { jobRoutes } from '#shared/contract/job'
import { route } from '../../../http/route'
import { raiseParts } from '../../../job/raise-parts'

export default route(jobRoutes.raiseParts, ({ ctx, params, version, body }) =>
  raiseParts(ctx, params.id, version, body.partIds),
)
