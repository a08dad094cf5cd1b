import { policyRoutes } from '#shared/contract/policy'
import { readApprovalPolicy } from '../decide/read-policy'
import { route } from '../http/route'

export default route(policyRoutes.readApprovalPolicy, ({ ctx }) => readApprovalPolicy(ctx))
