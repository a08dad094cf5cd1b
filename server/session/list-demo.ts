import type { DemoPerson } from '#shared/contract/session'
import type { Context } from '../context'
import { environment } from '../environment'
import { isSetUp, requireOrganisation } from '../settings/reads'
import { listDemoPeople } from '../people/person-reads'

/** The people of the demo and where its post can be read; nothing outside the demo. */
export async function listDemo({ tx }: Context): Promise<{ people: DemoPerson[]; postOffice: string | null }> {
  if (!environment().isDemo || !(await isSetUp(tx)) || !(await requireOrganisation(tx)).isDemo)
    return { people: [], postOffice: null }
  return { people: await listDemoPeople(tx), postOffice: process.env.REKKO_POST_OFFICE_URL ?? null }
}
