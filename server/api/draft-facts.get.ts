import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../http/route'
import { readDraftFacts } from '../requisition/read-choices'

export default route(requisitionRoutes.readDraftFacts, ({ ctx, query }) => readDraftFacts(ctx, query))
