import { decideRoutes } from '#shared/contract/decide'
import { listPreparedReasons, listSlips } from '../decide/reads'
import { route } from '../http/route'

export default route(decideRoutes.listWaiting, async ({ ctx }) => ({
  slips: await listSlips(ctx.tx, ctx.actor.id),
  reasons: await listPreparedReasons(ctx.tx),
}))
