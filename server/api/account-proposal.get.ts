import { regularsRoutes } from '#shared/contract/regulars'
import { route } from '../http/route'
import { proposeAccount } from '../regulars/propose-account'

export default route(regularsRoutes.proposeAccount, ({ ctx, query }) =>
  proposeAccount(ctx, query.departmentId, query.words),
)
