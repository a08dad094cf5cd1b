import { catalogueRoutes } from '#shared/contract/catalogue'
import { addPicture } from '../../../catalogue/pictures'
import { route } from '../../../http/route'

export default route(catalogueRoutes.addItemPicture, ({ ctx, params, bytes, query }) =>
  addPicture(ctx, params.id, bytes, query),
)
