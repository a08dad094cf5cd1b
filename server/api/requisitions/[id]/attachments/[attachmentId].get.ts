import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../../http/route'
import { readAttachment } from '../../../../document/read-attachment'
import { asDownload, asPreview } from '../../../../http/download'
import { REQUISITION } from '../../../../requisition/kind'

export default route(requisitionRoutes.readAttachment, async ({ ctx, event, params, query }) => {
  const file = await readAttachment(ctx, REQUISITION, params.id, params.attachmentId)
  return query.show ? asPreview(event, file) : asDownload(event, file)
})
