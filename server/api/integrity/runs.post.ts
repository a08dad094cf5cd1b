import { lookBackRoutes } from '#shared/contract/look-back'
import { route } from '../../http/route'
import { askForLook } from '../../look-back/check-integrity'

export default route(lookBackRoutes.checkIntegrity, ({ ctx }) => askForLook(ctx))
