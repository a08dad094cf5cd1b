import { yearEndRoutes } from '#shared/contract/year-end'
import { route } from '../../../http/route'
import { readYearEnd } from '../../../year-end/read-year-end'

export default route(yearEndRoutes.readYearEnd, ({ ctx, params }) => readYearEnd(ctx, params.year))
