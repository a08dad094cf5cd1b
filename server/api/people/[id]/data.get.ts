import { personalRoutes } from '#shared/contract/personal'
import { route } from '../../../http/route'
import { asDownload } from '../../../http/download'
import { takePersonalData } from '../../../personal/person-page'

export default route(personalRoutes.takePersonalData, async ({ ctx, event, params }) =>
  asDownload(event, await takePersonalData(ctx, params.id)),
)
