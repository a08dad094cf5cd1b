import { peopleRoutes } from '#shared/contract/people'
import { route } from '../http/route'
import { findPeople } from '../people/find-people'

export default route(peopleRoutes.searchPeople, ({ ctx, query }) => findPeople(ctx, query.words, query.gone === 'yes'))
