import { peopleRoutes } from '#shared/contract/people'
import { route } from '../http/route'
import { setAway } from '../people/set-away'

export default route(peopleRoutes.setAway, ({ ctx, body }) =>
  setAway(ctx, { ...body, personId: body.personId ?? ctx.actor.id }),
)
