import { requisitionRoutes } from '#shared/contract/requisition'
import { route } from '../http/route'
import { listSlips } from '../requisition/page-reads'

export default route(requisitionRoutes.listWaiting, async ({ ctx }) => ({
  slips: await listSlips(ctx.tx, ctx.actor.id),
}))
