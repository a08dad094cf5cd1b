import { orderTalkRoutes } from '#shared/contract/order-talk'
import { route } from '../../../http/route'
import { noteTalk } from '../../../order/note-talk'

export default route(orderTalkRoutes.noteTalk, ({ ctx, params, body }) => noteTalk(ctx, params.id, body))
