import { lookBackRoutes } from '#shared/contract/look-back'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'
import { exportEvents } from '../../look-back/read-events'

export default route(lookBackRoutes.exportEvents, async ({ ctx, event, query }) =>
  asDownload(event, {
    bytes: await exportEvents(ctx, query),
    name: 'events.jsonl',
    mime: 'application/jsonl; charset=utf-8',
  }),
)
