import { setHeader } from 'h3'
import { catalogueRoutes } from '#shared/contract/catalogue'
import { readPicture } from '../../../../catalogue/pictures'
import { asDownload } from '../../../../http/download'
import { route } from '../../../../http/route'

export default route(catalogueRoutes.readItemPicture, async ({ ctx, event, params }) => {
  const bytes = asDownload(event, await readPicture(ctx, params.id, params.pictureId))
  // A picture never changes under its id.
  setHeader(event, 'cache-control', 'private, max-age=604800, immutable')
  return bytes
})
