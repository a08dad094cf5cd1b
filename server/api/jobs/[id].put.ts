import { jobRoutes } from '#shared/contract/job'
import { route } from '../../http/route'
import { keepJob } from '../../job/keep-job'

export default route(jobRoutes.keepJob, ({ ctx, params, version, body }) => keepJob(ctx, params.id, version, body))
