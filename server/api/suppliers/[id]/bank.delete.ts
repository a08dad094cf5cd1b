import { may } from '#core/people/rights'
import { supplierRoutes } from '#shared/contract/supplier'
import { route } from '../../../http/route'
import { endBankChange } from '../../../supplier/change-bank'

export default route(supplierRoutes.endBankChange, ({ ctx, params }) =>
  endBankChange(ctx, params.id, may(ctx.actor.grants, 'approve suppliers')),
)
