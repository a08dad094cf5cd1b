import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { readBought } from '../../../dealings/read-bought'

export default route(supplierRoutes.readBought, ({ ctx, params }) => readBought(ctx, params.id))
