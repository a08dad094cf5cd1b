import { policyOf } from '#core/approval/policy-form'
import { thawSubject } from '#core/approval/policy'
import type { ReplayFacts } from '#core/approval/policy-replay'
import { addDays, dayOf } from '#core/base/day'
import { moneyOf } from '#core/base/money'
import type { Input, Reply } from '#shared/contract/all-routes'
import type { policyRoutes } from '#shared/contract/policy'
import { requireVersion } from '../approval/reads'
import { findHolders } from '../budget/reads'
import type { Context } from '../context'
import { seenAmong } from '../document/visible'
import { inWorkshop } from '../files/workshop'
import { invalid, refused, stale } from '../http/problem'
import { reachPeople } from '../people/person-reads'
import { listUpward } from '../people/place-reads'
import { SEEN_REQUISITIONS } from '../requisition/visible'
import { beginOf } from '../settings/moment-of'
import { requireOrganisation } from '../settings/reads'
import { findDraft, listOpenTo, listRoleHolders } from './policy-reads'
import { branchesOf } from './read-policy'
import { countPast, listDecidingHours, listPast } from './replay-reads'

/** Requests of one call: the page asks for the next, shows how far it came, and may stop. */
const A_PART = 5000
/** Of those that go another way so many are named in each part, if whoever asks may see them. */
const MOST_NAMED = 50
const YEAR_MS = 365 * 86_400_000

/**
 * A part of the requests that were sent between two days, under what is in force and under the draft, by the people of
 * today; nobody is taken to be away. What is counted tells nothing of single ones; those are named as far as whoever
 * asks may see them.
 */
export async function replayDraft(
  ctx: Context,
  { from, until, departmentIds, after, draft: version }: Input<(typeof policyRoutes)['replayPolicy'], 'body'>,
): Promise<Reply<(typeof policyRoutes)['replayPolicy']>> {
  const { tx, now } = ctx
  if (until < from) throw invalid('The last day lies before the first.', [{ field: 'until', message: 'lies before' }])
  const o = await requireOrganisation(tx)
  const today = dayOf(now, o.timeZone)
  const wish = { from: beginOf(from, o.timeZone), before: beginOf(addDays(until, 1), o.timeZone), departmentIds }
  const draft = await findDraft(tx)
  if (draft === null || draft.state === 'none') throw refused(['There is no draft that could be replayed.'])
  if (draft.version !== version) throw stale('somebody changed the draft')
  const past = await listPast(tx, wish, after, A_PART)
  const holders = await findHolders(tx, [...new Set(past.flatMap((p) => p.sent.codings.map((c) => c.budgetLineId)))])
  const branches = new Map(branchesOf(await listUpward(tx)).map((d) => [d.id, d.branch]))
  const { replayed, changed } = await inWorkshop(
    'replay-policy',
    past.map(({ id, sent, ownerId, raisedById, ownedBy, departmentId }) => ({
      id,
      subject: thawSubject(
        sent,
        { ownerId, raisedById, ownedBy, departmentId, branch: branches.get(departmentId) ?? [departmentId] },
        holders,
      ),
    })),
    await factsOf(ctx, draft.form, o.baseCurrency, today),
  )
  const seen = await seenAmong(
    ctx,
    SEEN_REQUISITIONS,
    changed.map((c) => c.id),
  )
  const byId = new Map(past.map((p) => [p.id, p]))
  return {
    total: after === null ? await countPast(tx, wish) : null,
    next: past.length < A_PART ? null : (past.at(-1)?.routeId ?? null),
    replayed,
    changed: changed
      .filter((c) => seen.has(c.id))
      .slice(0, MOST_NAMED)
      .flatMap(({ id, how }) => {
        const p = byId.get(id)
        return p === undefined
          ? []
          : [{ id, how, number: p.number, title: p.title, amount: moneyOf(p.amount, p.currency) }]
      }),
  }
}

async function factsOf(
  { tx, now }: Context,
  form: Parameters<typeof policyOf>[1],
  currency: string,
  today: string,
): Promise<ReplayFacts> {
  const inForce = await requireVersion(tx, now, today)
  const everybody = (await listOpenTo(tx)).map((p) => p.personId)
  const { people } = await reachPeople(tx, everybody, currency, today)
  const hours = await listDecidingHours(tx, new Date(now.getTime() - YEAR_MS))
  return {
    now: policyOf(inForce.id, inForce.form, inForce.grants),
    draft: policyOf('draft', form, await listRoleHolders(tx, today)),
    people: { people: new Map(people.map((p) => [p.id, p])), absences: [], today },
    hours: Object.fromEntries(hours.flatMap((h) => (h.personId === null ? [] : [[h.personId, h.hours]]))),
    usualHours: hours.find((h) => h.personId === null)?.hours ?? null,
  }
}
