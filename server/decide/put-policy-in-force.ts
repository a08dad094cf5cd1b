import { checkPolicyForm, choiceOf, policyChanges, type PolicyFacts, type PolicyForm } from '#core/approval/policy-form'
import type { Told } from '#core/told/told'
import type { ZonedMoment } from '#shared/contract/policy'
import { sayPolicyReason } from '#shared/words/policy-form'
import { findLastVersion, requireVersion } from '../approval/reads'
import { appendEvent } from '../audit/store'
import { listCategories } from '../catalogue/reads'
import type { Context } from '../context'
import { refused } from '../http/problem'
import { isInUse } from '../lists/held-store'
import { notifyChange } from '../live/notify'
import { listHolders, reachPeople } from '../people/person-reads'
import { listUpward } from '../people/place-reads'
import { mayConfirm } from '../people/second-person'
import { tellPeople } from '../people/tell-person'
import { enqueue } from '../queue/enqueue'
import { inForce, readForm } from '../requisition/form-reads'
import { momentOf } from '../settings/moment-of'
import { requireOrganisation } from '../settings/reads'
import { endDraft, requireDraft, THE_POLICY, todayOf } from './policy-draft'
import { listAllAccounts, listCurrencies, listOpenTo, listProjects, nextNumber } from './policy-reads'
import { insertVersion, setCalledOff, updateDraft, type DraftRow } from './policy-store'

/** Nothing is put in force further ahead than this. */
const MOST_DAYS_AHEAD = 400

/** What a form is checked against. */
async function factsFor(ctx: Context): Promise<PolicyFacts> {
  const { tx } = ctx
  const { baseCurrency } = await requireOrganisation(tx)
  const today = await todayOf(ctx)
  const openTo = await listOpenTo(tx)
  const { people } = await reachPeople(
    tx,
    openTo.map((p) => p.personId),
    baseCurrency,
    today,
  )
  const some = (ids: readonly string[]) => new Set(ids)
  const written = await readForm(tx, today)
  return {
    currency: baseCurrency,
    known: {
      department: some((await listUpward(tx)).filter((d) => !d.retired).map((d) => d.id)),
      category: some((await listCategories(tx)).map((c) => c.id)),
      account: some((await listAllAccounts(tx)).filter((a) => !a.retired).map((a) => a.code)),
      project: some(await listProjects(tx)),
      kind: some(inForce(written.kinds).map((k) => k.code)),
      'own field': some(
        inForce(written.ownFields)
          .filter((f) => f.type === 'choice')
          .flatMap((f) => f.choices.map((v) => choiceOf(f.id, v))),
      ),
      person: some(people.map((p) => p.id)),
      currency: some(await listCurrencies(tx, baseCurrency)),
    },
    left: some(people.flatMap((p) => (p.leftOn !== null && p.leftOn < today ? [p.id] : []))),
  }
}

/** Refused with everything that is wrong at once, or when nothing would be another. */
async function requireSound(ctx: Context, form: PolicyForm): Promise<void> {
  const reasons = checkPolicyForm(form, await factsFor(ctx))
  if (reasons.length > 0) throw refused(reasons.map((r) => sayPolicyReason(r)))
  const holds = await requireVersion(ctx.tx, ctx.now, await todayOf(ctx))
  const last = await findLastVersion(ctx.tx, await todayOf(ctx))
  if (policyChanges(holds.form, form).length === 0 && (last === null || last.number === holds.number))
    throw refused(['The draft says what holds already.'])
}

/** The moment from which a draft is to hold: null is as soon as it is confirmed. */
async function requireMoment(ctx: Context, from: ZonedMoment | null): Promise<Date | null> {
  if (from === null) return null
  const { timeZone } = await requireOrganisation(ctx.tx)
  const moment = momentOf(from.day, from.time, timeZone)
  if (moment.getTime() - ctx.now.getTime() > MOST_DAYS_AHEAD * 86_400_000)
    throw refused([`Choose a moment within the next ${MOST_DAYS_AHEAD} days.`])
  if (moment <= ctx.now) throw refused(['This moment has passed; choose a later one, or let it hold at once.'])
  return moment
}

export interface PutForward {
  readonly version: number
  /** The version of the policy that it became, where nobody had to confirm it. */
  readonly number: number | null
}

/**
 * Asks for the draft to be put in force, at once or from a moment on. Another administrator confirms it, or finance
 * where there is no other; while nothing was ever sent, an organisation is being set up, and it holds by itself.
 */
export async function askForDraft(ctx: Context, version: number, from: ZonedMoment | null): Promise<PutForward> {
  const draft = await requireDraft(ctx, version, 'written')
  await requireSound(ctx, draft.form)
  const moment = await requireMoment(ctx, from)
  if (!(await isInUse(ctx.tx))) {
    const number = await putInForce(ctx, draft, moment, ctx.actor.id)
    return { version: version + 1, number }
  }
  await updateDraft(ctx.tx, {
    state: 'waiting',
    inForceAt: moment,
    askedById: ctx.actor.id,
    askedAt: ctx.now,
    returned: '',
    writers: [...new Set([...draft.writers, ctx.actor.id])],
  })
  await appendEvent(ctx, {
    type: 'policy asked for',
    subjectKind: 'settings',
    subjectId: THE_POLICY,
    after: { ...draft.form, inForceAt: moment?.toISOString() ?? null },
  })
  const today = await todayOf(ctx)
  const others = (await listHolders(ctx.tx, 'administrator', today)).filter((a) => !draft.writers.includes(a.id))
  const asked = others.length > 0 ? others : await listHolders(ctx.tx, 'finance', today)
  await tellPeople(
    ctx,
    asked
      .filter((a) => a.id !== ctx.actor.id)
      .map((a) => ({
        personId: a.id,
        about: { kind: 'settings', id: THE_POLICY },
        told: { code: 'policy-waits', by: ctx.actor.name, name: draft.form.name },
        path: '/set-up/approval',
      })),
  )
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_POLICY })
  return { version: version + 1, number: null }
}

/** Writes the draft as the next version, and routes what is open again when it comes into force. */
async function putInForce(ctx: Context, draft: DraftRow, moment: Date | null, askedById: string): Promise<number> {
  const before = await requireVersion(ctx.tx, ctx.now, await todayOf(ctx))
  const number = await nextNumber(ctx.tx)
  // What was chosen may have passed while it waited; what holds before that moment goes on to have held.
  const inForceAt = moment === null || moment < ctx.now ? ctx.now : moment
  await insertVersion(ctx.tx, draft.form, {
    number,
    inForceAt,
    askedById,
    askedAt: draft.askedAt ?? ctx.now,
    confirmedById: ctx.actor.id,
    confirmedAt: ctx.now,
  })
  await endDraft(ctx)
  await appendEvent(ctx, {
    type: 'policy put in force',
    subjectKind: 'settings',
    subjectId: THE_POLICY,
    before: before.form,
    after: { ...draft.form, number, inForceAt: inForceAt.toISOString(), askedById },
  })
  const wait = Math.ceil((inForceAt.getTime() - ctx.now.getTime()) / 1000)
  await enqueue(ctx.tx, 'route-all-again', {}, wait)
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_POLICY })
  return number
}

/** Confirms what somebody else asked for, as it was seen: it is the next version from its moment on. */
export async function confirmDraft(ctx: Context, version: number): Promise<PutForward> {
  const draft = await requireDraft(ctx, version, 'waiting')
  if (!(await mayConfirm(ctx, draft.writers)))
    throw refused([
      draft.writers.includes(ctx.actor.id)
        ? 'Whoever wrote in the draft does not confirm it; another administrator does, or finance where there is none.'
        : 'An administrator confirms this, or finance where all of them wrote in it.',
    ])
  await requireSound(ctx, draft.form)
  const number = await putInForce(ctx, draft, draft.inForceAt, draft.askedById ?? ctx.actor.id)
  await tellAsker(ctx, draft, { code: 'policy-confirmed', by: ctx.actor.name, number })
  return { version: version + 1, number }
}

/** Gives a draft back that waits: whoever may confirm it says why, whoever asked for it just takes it back. */
export async function giveDraftBack(ctx: Context, version: number, why: string): Promise<{ version: number }> {
  const draft = await requireDraft(ctx, version, 'waiting')
  const isOwn = draft.askedById === ctx.actor.id
  if (!isOwn && !(await mayConfirm(ctx, draft.writers))) throw refused(['Whoever may confirm it gives it back.'])
  const said = why.trim()
  if (!isOwn && said === '') throw refused(['Say what is to be changed.'])
  await updateDraft(ctx.tx, {
    state: 'written',
    askedById: null,
    askedAt: null,
    inForceAt: null,
    returned: isOwn ? '' : `${ctx.actor.name}: ${said}`,
  })
  await appendEvent(ctx, {
    type: isOwn ? 'policy taken back' : 'policy given back',
    subjectKind: 'settings',
    subjectId: THE_POLICY,
    after: { why: said },
  })
  if (!isOwn) await tellAsker(ctx, draft, { code: 'policy-given-back', by: ctx.actor.name, why: said })
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_POLICY })
  return { version: version + 1 }
}

async function tellAsker(ctx: Context, { askedById }: DraftRow, told: Told): Promise<void> {
  if (askedById === null) return
  const about = { kind: 'settings', id: THE_POLICY }
  await tellPeople(ctx, [{ personId: askedById, about, told, path: '/set-up/approval' }])
}

/** Calls a version off that is confirmed and has not begun: what holds goes on to hold. */
export async function callVersionOff(ctx: Context, number: number): Promise<void> {
  if (!(await setCalledOff(ctx.tx, number, ctx.actor.id, ctx.now)))
    throw refused(['This version is in force already, or was called off; write a draft to change what holds.'])
  await appendEvent(ctx, {
    type: 'policy called off',
    subjectKind: 'settings',
    subjectId: THE_POLICY,
    after: { number },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_POLICY })
}
