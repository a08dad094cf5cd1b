import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { readTaxForm } from '../../../supplier/tax-form'
import { asDownload } from '../../../http/download'

export default route(supplierRoutes.readTaxForm, async ({ ctx, event, params }) =>
  asDownload(event, await readTaxForm(ctx, params.id)),
)
