import { orderRoutes } from '#shared/contract/order'
import { askAboutLine } from '../../../../order/ask-about-line'
import { route } from '../../../../http/route'

export default route(orderRoutes.askAboutLine, ({ ctx, params, body }) => askAboutLine(ctx, params.id, body.text))
