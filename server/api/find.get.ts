import { findRoutes } from '#shared/contract/find'
import { findAnything } from '../find/find-anything'
import { route } from '../http/route'

export default route(findRoutes.findAnything, ({ ctx, query }) => findAnything(ctx, query.words))
