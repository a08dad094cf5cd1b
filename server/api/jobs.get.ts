import { jobRoutes } from '#shared/contract/job'
import { route } from '../http/route'
import { listJobs } from '../job/job-reads'

export default route(jobRoutes.listJobs, async ({ ctx, query }) => ({
  jobs: await listJobs(ctx.tx, ctx.actor.id, query.words, 200),
}))
