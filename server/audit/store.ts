import { event } from '../db/schema/audit'
import type { Context } from '../context'
import { sendAlong } from '../db/transaction'

export interface NewEvent {
  readonly type: string
  /** A kind of document, or 'absence', 'session', 'supplier', 'settings'. */
  readonly subjectKind: string
  readonly subjectId: string
  readonly before?: unknown
  readonly after?: Readonly<Record<string, unknown>>
  readonly forId?: string | null
}

/** Appends an event: who, for whom, when, what before and after. */
export async function appendEvent(ctx: Context, e: NewEvent): Promise<void> {
  await appendEvents(ctx, [e])
}

/** Appends an event by whose sequence number something else is kept. */
export async function appendEventForSeq(ctx: Context, e: NewEvent): Promise<number> {
  const [added] = await ctx.tx.insert(event).values(rowOf(ctx, e)).returning({ seq: event.seq })
  if (added === undefined) throw new Error('an event was not written')
  return added.seq
}

/** Appends several events in one statement, in their order. */
export async function appendEvents(ctx: Context, events: readonly NewEvent[]): Promise<void> {
  if (events.length === 0) return
  await sendAlong(ctx.tx, ctx.tx.insert(event).values(events.map((e) => rowOf(ctx, e))))
}

function rowOf({ now, actor }: Context, e: NewEvent): typeof event.$inferInsert {
  return {
    at: now,
    actorId: actor.id === '' ? null : actor.id,
    forId: e.forId ?? null,
    type: e.type,
    subjectKind: e.subjectKind,
    subjectId: e.subjectId,
    before: e.before ?? null,
    after: e.after ?? null,
  }
}
