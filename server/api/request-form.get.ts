import { requestFormRoutes } from '#shared/contract/request-form'
import { route } from '../http/route'
import { readRequestForm } from '../requisition/request-form'

export default route(requestFormRoutes.readRequestForm, ({ ctx }) => readRequestForm(ctx))
