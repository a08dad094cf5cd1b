import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../../http/route'
import { readAttachment } from '../../../../requisition/read-attachment'
import { asDownload } from '../../../../http/download'

export default route(requisitionRoutes.readAttachment, async ({ ctx, event, params }) => asDownload(event, await readAttachment(ctx, params.id, params.attachmentId)))
