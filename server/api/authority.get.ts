import { lookBackRoutes } from '#shared/contract/look-back'
import { route } from '../http/route'
import { readAuthority } from '../look-back/read-authority'

export default route(lookBackRoutes.readAuthority, ({ ctx, query }) => readAuthority(ctx, query.day))
