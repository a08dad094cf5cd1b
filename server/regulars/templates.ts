import { randomUUID } from 'node:crypto'
import { dayOf, type Day } from '#core/base/day'
import type { Draft } from '#core/requisition/draft'
import { nextOf, type Rhythm } from '#core/requisition/rhythm'
import type { TemplateView } from '#shared/contract/regulars'
import type { Context } from '../context'
import { forbidden, notFound, stale } from '../http/problem'
import { listOpenDepartments } from '../people/place-reads'
import { requireOrganisation } from '../settings/reads'
import { findTemplate, listTemplateRows, type TemplateRow } from './template-reads'
import { deleteTemplate, insertTemplate, updateTemplate, type TemplateRhythm } from './store'

/** A rhythm as it is asked for. */
export interface AskedRhythm {
  readonly every: Rhythm
  readonly startsOn: Day
  readonly sendsItself: boolean
  readonly neededAfter: number
}

/** One's own templates, and those shared with the departments open to one. */
export async function listTemplates({ tx, actor }: Context): Promise<{ templates: TemplateView[] }> {
  const found = await listTemplateRows(
    tx,
    actor.id,
    (await listOpenDepartments(tx, actor.id)).map((d) => d.id),
  )
  return {
    templates: found.map((t) => ({
      id: t.id,
      version: t.version,
      name: t.name,
      owner: t.owner,
      mine: t.ownerId === actor.id,
      department: t.department,
      departmentId: t.departmentId,
      lines: t.draft.lines.length,
      nextOn: t.nextOn,
      rhythm:
        t.repeats === null || t.startsOn === null
          ? null
          : { every: t.repeats, startsOn: t.startsOn, sendsItself: t.sendsItself, neededAfter: t.neededAfter },
    })),
  }
}

/** Keeps a draft as a template. */
export async function makeTemplate(
  ctx: Context,
  t: {
    readonly name: string
    readonly departmentId: string | null
    readonly draft: Draft
    readonly rhythm: AskedRhythm | null
  },
): Promise<{ id: string }> {
  await requireOpen(ctx, t.departmentId)
  const id = randomUUID()
  const draft = { ...t.draft, needBy: null, accountingDate: null, overBudgetReason: '', readWarnings: [] }
  await insertTemplate(
    ctx.tx,
    { id, name: t.name.trim(), ownerId: ctx.actor.id, departmentId: t.departmentId, draft, now: ctx.now },
    await rhythmOf(ctx, t.rhythm),
  )
  return { id }
}

/** Gives a template of one's own another name, sharing or rhythm. */
export async function changeTemplate(
  ctx: Context,
  id: string,
  version: number,
  t: { readonly name: string; readonly departmentId: string | null; readonly rhythm: AskedRhythm | null },
): Promise<{ id: string; version: number }> {
  await requireOwn(ctx, id, version)
  await requireOpen(ctx, t.departmentId)
  await updateTemplate(ctx.tx, id, { name: t.name.trim(), departmentId: t.departmentId }, await rhythmOf(ctx, t.rhythm))
  return { id, version: version + 1 }
}

export async function removeTemplate(ctx: Context, id: string, version: number): Promise<void> {
  await requireOwn(ctx, id, version)
  await deleteTemplate(ctx.tx, id)
}

/** A template that one may use; 404 otherwise. */
export async function requireTemplate(ctx: Context, id: string, lock = false): Promise<TemplateRow> {
  const t = await findTemplate(ctx.tx, id, lock)
  const mayUse =
    t !== null &&
    (t.ownerId === ctx.actor.id ||
      (t.departmentId !== null &&
        (await listOpenDepartments(ctx.tx, ctx.actor.id)).some((d) => d.id === t.departmentId)))
  if (!mayUse) throw notFound('This template')
  return t
}

async function requireOwn(ctx: Context, id: string, version: number): Promise<void> {
  const t = await requireTemplate(ctx, id, true)
  if (t.ownerId !== ctx.actor.id) throw forbidden(`This template is ${t.owner}’s; only they may change it.`)
  if (t.version !== version) throw stale('this template was changed in another window')
}

async function requireOpen(ctx: Context, departmentId: string | null): Promise<void> {
  if (departmentId !== null && !(await listOpenDepartments(ctx.tx, ctx.actor.id)).some((d) => d.id === departmentId))
    throw forbidden('You may share a template with your own departments only.')
}

/** Its first time is the day it starts, or the next time after today where that has passed. */
async function rhythmOf(ctx: Context, r: AskedRhythm | null): Promise<TemplateRhythm | null> {
  if (r === null) return null
  const { timeZone } = await requireOrganisation(ctx.tx)
  const today = dayOf(ctx.now, timeZone)
  return {
    repeats: r.every,
    startsOn: r.startsOn,
    nextOn: r.startsOn > today ? r.startsOn : nextOf(r.every, r.startsOn, today),
    sendsItself: r.sendsItself,
    neededAfter: r.neededAfter,
  }
}
