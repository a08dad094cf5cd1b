import { agreementRoutes } from '#shared/contract/agreement'
import { putAgreedPrices } from '../../../dealings/put-agreed-prices'
import { route } from '../../../http/route'

export default route(agreementRoutes.putAgreedPrices, ({ ctx, params, body }) =>
  putAgreedPrices(ctx, params.id, body.itemIds),
)
