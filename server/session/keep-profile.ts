import type { Profile } from '#shared/contract/account'
import type { Context } from '../context'
import { invalid, notFound } from '../http/problem'
import { findProfile, writeProfile } from '../people/profile-store'

/** One's own profile. */
export async function readProfile({ tx, actor }: Context): Promise<Profile> {
  const found = await findProfile(tx, actor.id)
  if (found === null) throw notFound('This person')
  return found
}

/** Changes how one reads, how pages look, and which mails come: nobody's but one's own affair, so no event. */
export async function keepProfile({ tx, actor }: Context, profile: Profile): Promise<void> {
  if (Intl.NumberFormat.supportedLocalesOf([profile.locale]).length === 0)
    throw invalid('Choose a language from the list.', [{ field: 'locale', message: 'is not known' }])
  await writeProfile(tx, actor.id, profile)
}
