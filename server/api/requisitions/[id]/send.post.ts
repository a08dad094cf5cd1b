import { requisitionRoutes } from '#shared/contract/requisition'
import { withWhatHoldsNow } from '../../../document/holds-now'
import { route } from '../../../http/route'
import { sendRequisition } from '../../../requisition/send-requisition'

export default route(
  requisitionRoutes.sendRequisition,
  ({ ctx, params, version }) => sendRequisition(ctx, params.id, version),
  { again: ({ ctx, params }, first) => withWhatHoldsNow(ctx, params.id, first) },
)
