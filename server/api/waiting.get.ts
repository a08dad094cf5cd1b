import { decideRoutes } from '#shared/contract/decide'
import { route } from '../http/route'
import { listSlips } from '../decide/reads'

export default route(decideRoutes.listWaiting, async ({ ctx }) => ({
  slips: await listSlips(ctx.tx, ctx.actor.id),
}))
