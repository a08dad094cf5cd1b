import { jobRoutes } from '#shared/contract/job'
import { route } from '../../http/route'
import { readJob } from '../../job/read-job'

export default route(jobRoutes.readJob, ({ ctx, params }) => readJob(ctx, params.id))
