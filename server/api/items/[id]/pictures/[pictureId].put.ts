import { catalogueRoutes } from '#shared/contract/catalogue'
import { usePicture } from '../../../../catalogue/pictures'
import { route } from '../../../../http/route'

export default route(catalogueRoutes.useItemPicture, ({ ctx, params }) => usePicture(ctx, params.id, params.pictureId))
