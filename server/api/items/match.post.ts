import { catalogueRoutes } from '#shared/contract/catalogue'
import { route } from '../../http/route'
import { findItemsByNumber } from '../../catalogue/reads'

export default route(catalogueRoutes.matchItems, async ({ ctx, body }) => ({
  items: await findItemsByNumber(ctx.tx, body.numbers),
}))
