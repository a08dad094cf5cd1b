import { peopleRoutes } from '#shared/contract/people'
import { route } from '../../http/route'
import { endAway } from '../../people/set-away'

export default route(peopleRoutes.endAway, ({ ctx, params, version }) => endAway(ctx, params.id, version))
