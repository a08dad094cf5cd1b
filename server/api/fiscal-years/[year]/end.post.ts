import { yearEndRoutes } from '#shared/contract/year-end'
import { route } from '../../../http/route'
import { endYear } from '../../../year-end/end-year'

export default route(yearEndRoutes.endYear, ({ ctx, params, body }) => endYear(ctx, params.year, body))
