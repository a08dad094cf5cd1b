import { listRoutes } from '#shared/contract/lists'
import { route } from '../../http/route'
import { dropHeld } from '../../lists/confirm-held'

export default route(listRoutes.dropHeldChange, ({ ctx, params }) => dropHeld(ctx, params.id))
