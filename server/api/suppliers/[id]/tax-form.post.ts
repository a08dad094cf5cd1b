import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { giveTaxForm } from '../../../supplier/proposals'

export default route(supplierRoutes.giveTaxForm, ({ ctx, params, bytes, query }) => giveTaxForm(ctx, params.id, bytes, query.name))
