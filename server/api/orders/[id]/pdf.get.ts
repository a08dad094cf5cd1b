import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { readOrderPdf } from '../../../order/read-order'
import { asDownload } from '../../../http/download'

export default route(orderRoutes.readOrderPdf, async ({ ctx, event, params, query }) =>
  asDownload(event, await readOrderPdf(ctx, params.id, query.revision)),
)
