import { catalogueRoutes } from '#shared/contract/catalogue'
import { route } from '../http/route'
import { searchSuppliers } from '../supplier/reads'

export default route(catalogueRoutes.searchSuppliers, async ({ ctx, query }) => ({
  suppliers: await searchSuppliers(ctx.tx, query.words, query.limit),
}))
