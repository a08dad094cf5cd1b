import { peopleRoutes } from '#shared/contract/people'
import { route } from '../http/route'
import { makeCalendar } from '../people/cover-calendar'

export default route(peopleRoutes.makeCalendar, ({ ctx }) => makeCalendar(ctx))
