import { organisationRoutes } from '#shared/contract/organisation'
import { route } from '../http/route'
import { sendTestLetter } from '../organisation/send-test-letter'

export default route(organisationRoutes.sendTestLetter, ({ ctx }) => sendTestLetter(ctx), { changesNothing: true })
