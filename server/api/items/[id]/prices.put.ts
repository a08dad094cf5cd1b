import { catalogueRoutes } from '#shared/contract/catalogue'
import { setPrices } from '../../../catalogue/set-prices'
import { route } from '../../../http/route'

export default route(catalogueRoutes.setItemPrices, ({ ctx, params, body }) =>
  setPrices(ctx, params.id, body.from, body.steps),
)
