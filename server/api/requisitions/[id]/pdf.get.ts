import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../../../http/route'
import { readRequisitionPdf } from '../../../requisition/requisition-pdf'
import { asDownload } from '../../../http/download'

export default route(requisitionRoutes.readRequisitionPdf, async ({ ctx, event, params }) =>
  asDownload(event, await readRequisitionPdf(ctx, params.id)),
)
