import { catalogueRoutes } from '#shared/contract/catalogue'
import { browseCatalogue } from '../browse/browse-catalogue'
import { route } from '../http/route'

export default route(catalogueRoutes.browseCatalogue, ({ ctx, query }) => browseCatalogue(ctx, query))
