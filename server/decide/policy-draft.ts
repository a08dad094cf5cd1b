import { writtenRule, type PolicyForm } from '#core/approval/policy-form'
import { dayOf, type Day } from '#core/base/day'
import { findLastVersion } from '../approval/reads'
import type { Context } from '../context'
import { refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { insertDraft, lockDraft, updateDraft, type DraftRow } from './policy-store'

/** The one policy there is, as events and changes name it. */
export const THE_POLICY = '00000000-0000-4000-8000-000000000002'

/**
 * Keeps the draft of the next version, at the version that was seen (0: none was). It may be half-written: what is
 * wrong with it is said when it is to be put in force. While it waits for a second person it is not written in.
 */
export async function keepDraft(ctx: Context, version: number, form: PolicyForm): Promise<{ version: number }> {
  const draft = await lockDraft(ctx.tx)
  const kept = { ...form, rules: form.rules.map(writtenRule) }
  const mine = { form: kept, changedById: ctx.actor.id, changedAt: ctx.now }
  if (draft === null) {
    const begun = await findLastVersion(ctx.tx, await todayOf(ctx))
    const isFirst =
      version === 0 &&
      (await insertDraft(ctx.tx, {
        ...mine,
        begunFrom: begun?.number ?? 0,
        version: 1,
        state: 'written',
        writers: [ctx.actor.id],
      }))
    if (!isFirst) throw stale('another administrator began a draft')
  } else {
    if (draft.version !== version) throw stale('another administrator wrote in the draft')
    if (draft.state === 'waiting') throw refused(['The draft waits for a second person; take it back to write in it.'])
    const isNew = draft.state === 'none'
    const begun = isNew ? await findLastVersion(ctx.tx, await todayOf(ctx)) : null
    await updateDraft(ctx.tx, {
      ...mine,
      state: 'written',
      ...(begun === null ? {} : { begunFrom: begun.number }),
      writers: [...new Set([...(isNew ? [] : draft.writers), ctx.actor.id])],
    })
  }
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_POLICY })
  return { version: version + 1 }
}

/** Which day it is where the organisation is. */
export const todayOf = async ({ tx, now }: Context): Promise<Day> =>
  dayOf(now, (await requireOrganisation(tx)).timeZone)

/** The draft at the version that was seen, locked; refused where there is none, or it stands elsewhere. */
export async function requireDraft(ctx: Context, version: number, state: DraftRow['state']): Promise<DraftRow> {
  const draft = await lockDraft(ctx.tx)
  if (draft === null || draft.state === 'none')
    throw refused(['There is no draft any more: it was thrown away, or put in force.'])
  if (draft.version !== version) throw stale('somebody changed the draft')
  if (draft.state !== state)
    throw refused([
      state === 'waiting' ? 'The draft waits for nobody.' : 'The draft waits for a second person already.',
    ])
  return draft
}

/** Throws the draft away; what holds goes on to hold. What waits is taken back first. */
export async function throwDraftAway(ctx: Context, version: number): Promise<{ version: number }> {
  await requireDraft(ctx, version, 'written')
  await endDraft(ctx)
  await notifyChange(ctx.tx, { kind: 'settings', id: THE_POLICY })
  return { version: version + 1 }
}

/** The draft is over: thrown away, or in force. */
export const endDraft = (ctx: Context) =>
  updateDraft(ctx.tx, { state: 'none', writers: [], inForceAt: null, askedById: null, askedAt: null, returned: '' })
