import { personalRoutes } from '#shared/contract/personal'
import { route } from '../../../http/route'
import { readPersonPage } from '../../../personal/person-page'

export default route(personalRoutes.readPersonPage, ({ ctx, params }) => readPersonPage(ctx, params.id))
