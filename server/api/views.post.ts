import { peopleRoutes } from '#shared/contract/people'
import { route } from '../http/route'
import { keepView } from '../people/saved-views'

export default route(peopleRoutes.keepView, ({ ctx, body }) => keepView(ctx, body.place, body.name, body.query))
