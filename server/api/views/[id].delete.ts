import { peopleRoutes } from '#shared/contract/people'
import { route } from '../../http/route'
import { removeView } from '../../people/saved-views'

export default route(peopleRoutes.removeView, ({ ctx, params }) => removeView(ctx, params.id))
