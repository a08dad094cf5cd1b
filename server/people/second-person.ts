import { dayOf } from '#core/base/day'
import { may } from '#core/people/rights'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { listHolders } from './person-reads'

/**
 * Whether whoever acts may confirm what some people wrote: another administrator; where every administrator wrote in
 * it, somebody of finance. Never one of those people.
 */
export async function mayConfirm({ tx, now, actor }: Context, by: readonly string[]): Promise<boolean> {
  if (by.includes(actor.id)) return false
  if (may(actor.grants, 'keep settings')) return true
  if (!may(actor.grants, 'keep budgets')) return false
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  return (await listHolders(tx, 'administrator', today)).every((a) => by.includes(a.id))
}
