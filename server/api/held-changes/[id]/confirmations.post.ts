import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../http/route'
import { confirmHeld } from '../../../lists/confirm-held'

export default route(listRoutes.confirmHeldChange, ({ ctx, params }) => confirmHeld(ctx, params.id))
