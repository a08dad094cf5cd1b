import { lookBackRoutes } from '#shared/contract/look-back'
import { route } from '../http/route'
import { readLooks } from '../look-back/check-integrity'

export default route(lookBackRoutes.readIntegrity, async ({ ctx }) => ({ looks: await readLooks(ctx) }))
