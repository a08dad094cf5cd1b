import { personalRoutes } from '#shared/contract/personal'
import { route } from '../../http/route'
import { asDownload } from '../../http/download'
import { takePersonalData } from '../../personal/person-page'

export default route(personalRoutes.takeOwnData, async ({ ctx, event }) =>
  asDownload(event, await takePersonalData(ctx, ctx.actor.id)),
)
