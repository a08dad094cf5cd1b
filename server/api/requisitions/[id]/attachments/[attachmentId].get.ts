import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../../http/route'
import { readAttachment } from '../../../../requisition/read-attachment'
import { asDownload, asPreview } from '../../../../http/download'

export default route(requisitionRoutes.readAttachment, async ({ ctx, event, params, query }) => {
  const file = await readAttachment(ctx, params.id, params.attachmentId)
  return query.show ? asPreview(event, file) : asDownload(event, file)
})
