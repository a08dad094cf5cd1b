import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../http/route'
import { findDoubles } from '../../supplier/find-doubles'

export default route(supplierRoutes.listDoubles, async ({ ctx }) => ({ pairs: await findDoubles(ctx) }))
