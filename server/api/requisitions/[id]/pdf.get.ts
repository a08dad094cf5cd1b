import { requisitionRoutes } from '#shared/contract/requisition'
import { environment } from '../../../environment'
import { inWorkshop } from '../../../files/workshop'
import { asDownload } from '../../../http/download'
import { route } from '../../../http/route'
import { readRequisitionPaper } from '../../../requisition/requisition-paper'

export default route(requisitionRoutes.readRequisitionPdf, async ({ ctx, event, params }) => {
  const { paper, name } = await readRequisitionPaper(ctx, params.id)
  const bytes = await inWorkshop('make-pdf', paper, environment().root)
  return asDownload(event, { bytes, name, mime: 'application/pdf' })
})
