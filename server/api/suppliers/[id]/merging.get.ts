import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { reviewMerging } from '../../../dealings/merge-suppliers'

export default route(supplierRoutes.reviewMerging, ({ ctx, params, query }) =>
  reviewMerging(ctx, params.id, query.into),
)
