import { personalRoutes } from '#shared/contract/personal'
import { route } from '../../../http/route'
import { erasePerson } from '../../../personal/person-page'

export default route(personalRoutes.erasePerson, ({ ctx, params, body }) => erasePerson(ctx, params.id, body.name))
