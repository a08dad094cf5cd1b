import { peopleRoutes } from '#shared/contract/people'
import { route } from '../http/route'
import { listSavedViews } from '../people/view-reads'

export default route(peopleRoutes.listViews, async ({ ctx, query }) => ({
  views: await listSavedViews(ctx.tx, ctx.actor.id, query.place),
}))
