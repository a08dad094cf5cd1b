import { catalogueRoutes } from '#shared/contract/catalogue'
import { listChoices } from '../../browse/browse-reads'
import { route } from '../../http/route'

export default route(catalogueRoutes.readCatalogueChoices, ({ ctx }) => listChoices(ctx.tx))
