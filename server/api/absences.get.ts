import { peopleRoutes } from '#shared/contract/people'
import { route } from '../http/route'
import { readAbsences } from '../people/find-people'

export default route(peopleRoutes.listAbsences, ({ ctx }) => readAbsences(ctx))
