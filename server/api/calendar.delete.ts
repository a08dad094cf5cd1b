import { peopleRoutes } from '#shared/contract/people'
import { route } from '../http/route'
import { endCalendar } from '../people/cover-calendar'

export default route(peopleRoutes.endCalendar, ({ ctx }) => endCalendar(ctx))
