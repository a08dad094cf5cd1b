import { orderRoutes } from '#shared/contract/order'
import { route } from '../../../http/route'
import { writeTrayNote } from '../../../order/lay-tray'

export default route(orderRoutes.writeTrayNote, ({ ctx, params, body }) => writeTrayNote(ctx, params.id, body.note))
