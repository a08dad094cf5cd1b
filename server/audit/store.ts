import { event } from '../db/schema/audit'
import type { Context } from '../context'

export interface NewEvent {
  readonly type: string
  /** A kind of document, or 'absence', 'session', 'supplier', 'settings'. */
  readonly subjectKind: string
  readonly subjectId: string
  readonly before?: unknown
  readonly after?: Readonly<Record<string, unknown>>
  readonly forId?: string | null
}

/** Appends an event: who, for whom, when, what before and after. Returns its sequence number. */
export async function appendEvent(ctx: Context, e: NewEvent): Promise<number> {
  const [seq] = await appendEvents(ctx, [e])
  if (seq === undefined) throw new Error('an event was not written')
  return seq
}

/** Appends several events in one statement, in their order. Returns their sequence numbers. */
export async function appendEvents({ tx, now, actor }: Context, events: readonly NewEvent[]): Promise<number[]> {
  if (events.length === 0) return []
  const added = await tx
    .insert(event)
    .values(
      events.map((e) => ({
        at: now,
        actorId: actor.id === '' ? null : actor.id,
        forId: e.forId ?? null,
        type: e.type,
        subjectKind: e.subjectKind,
        subjectId: e.subjectId,
        before: e.before ?? null,
        after: e.after ?? null,
      })),
    )
    .returning({ seq: event.seq })
  return added.map((a) => a.seq)
}
