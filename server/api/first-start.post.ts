import { firstStartRoutes } from '#shared/contract/first-start'
import { beginOrganisation } from '../first-start/begin-organisation'
import { route } from '../http/route'

export default route(firstStartRoutes.beginOrganisation, ({ ctx, event, body }) => beginOrganisation(ctx, event, body))
