import { supplierRoutes } from '#shared/contract/supplier'
import { asDownload } from '../../../../http/download'
import { route } from '../../../../http/route'
import { readPaper } from '../../../../supplier/papers'

export default route(supplierRoutes.readSupplierPaper, async ({ ctx, event, params }) =>
  asDownload(event, await readPaper(ctx, params.id, params.paperId)),
)
