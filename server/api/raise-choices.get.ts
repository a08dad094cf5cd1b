import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../http/route'
import { readChoices } from '../requisition/read-choices'

export default route(requisitionRoutes.readChoices, ({ ctx }) => readChoices(ctx))
