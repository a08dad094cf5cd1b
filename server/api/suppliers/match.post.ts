import { catalogueRoutes } from '#shared/contract/catalogue'
import { route } from '../../http/route'
import { matchSuppliers } from '../../supplier/match-suppliers'

export default route(catalogueRoutes.matchSuppliers, async ({ ctx, body }) => ({
  found: await matchSuppliers(ctx.tx, body.texts),
}))
