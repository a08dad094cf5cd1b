import { yearEndRoutes } from '#shared/contract/year-end'
import { asDownload } from '../../../../../http/download'
import { route } from '../../../../../http/route'
import { exportYearEnd } from '../../../../../year-end/export-year-end'

export default route(yearEndRoutes.exportYearEnd, async ({ ctx, event, params, query }) =>
  asDownload(event, await exportYearEnd(ctx, params.year, params.run, query.as)),
)
