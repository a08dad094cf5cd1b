import { catalogueRoutes } from '#shared/contract/catalogue'
import { route } from '../http/route'
import { searchItems } from '../browse/search-reads'

export default route(catalogueRoutes.searchItems, async ({ ctx, query }) => ({
  items: await searchItems(ctx.tx, query.words, query.departmentId ?? null, query.limit),
}))
