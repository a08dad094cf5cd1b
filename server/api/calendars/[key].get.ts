import { peopleRoutes } from '#shared/contract/people'
import { asDownload } from '../../http/download'
import { route } from '../../http/route'
import { readCalendar } from '../../people/cover-calendar'

export default route(peopleRoutes.readCalendar, async ({ ctx, event, params }) =>
  asDownload(event, { bytes: await readCalendar(ctx, params.key), name: 'away.ics', mime: 'text/calendar' }),
)
