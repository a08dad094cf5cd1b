import { requestFormRoutes } from '#shared/contract/request-form'
import { route } from '../http/route'
import { keepRequestForm } from '../requisition/request-form'

export default route(requestFormRoutes.keepRequestForm, ({ ctx, version, body }) => keepRequestForm(ctx, version, body))
