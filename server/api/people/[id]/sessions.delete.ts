import { personalRoutes } from '#shared/contract/personal'
import { route } from '../../../http/route'
import { signOut } from '../../../personal/person-page'

export default route(personalRoutes.signOutPerson, ({ ctx, params }) => signOut(ctx, params.id))
