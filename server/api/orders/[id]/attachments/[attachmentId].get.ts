import { orderRoutes } from '#shared/contract/order'
import { readAttachment } from '../../../../document/read-attachment'
import { asDownload, asPreview } from '../../../../http/download'
import { route } from '../../../../http/route'
import { ORDER } from '../../../../order/kind'

export default route(orderRoutes.readOrderAttachment, async ({ ctx, event, params, query }) => {
  const file = await readAttachment(ctx, ORDER, params.id, params.attachmentId)
  return query.show ? asPreview(event, file) : asDownload(event, file)
})
