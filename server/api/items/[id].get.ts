import { catalogueRoutes } from '#shared/contract/catalogue'
import { readItem } from '../../browse/read-item'
import { route } from '../../http/route'

export default route(catalogueRoutes.readItem, ({ ctx, params }) => readItem(ctx, params.id))
