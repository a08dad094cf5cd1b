import { catalogueRoutes } from '#shared/contract/catalogue'
import { removePicture } from '../../../../catalogue/pictures'
import { route } from '../../../../http/route'

export default route(catalogueRoutes.removeItemPicture, ({ ctx, params }) =>
  removePicture(ctx, params.id, params.pictureId),
)
