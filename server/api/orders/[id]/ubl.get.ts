import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { readOrderUbl } from '../../../order/read-order'
import { asDownload } from '../../../http/download'

export default route(orderRoutes.readOrderUbl, async ({ ctx, event, params, query }) =>
  asDownload(event, await readOrderUbl(ctx, params.id, query.revision)),
)
