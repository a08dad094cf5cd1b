import { listRoutes } from '#shared/contract/lists'
import { route } from '../../../../http/route'
import { undoChange } from '../../../../lists/undo-list'

export default route(listRoutes.undoListChange, ({ ctx, params, version }) =>
  undoChange(ctx, params.list, version, params.seq),
)
