import { addDays } from '#core/base/day'
import type { EventsPage, EventsQuery } from '#shared/contract/look-back'
import { BEFORE_FIRST, writeLine } from '../audit/chain'
import type { Context } from '../context'
import { refused } from '../http/problem'
import { beginOf } from '../settings/moment-of'
import { requireOrganisation } from '../settings/reads'
import { listEventsAsked, listSorts, type EventsAsked } from './event-reads'

/** Events on a page, and the most that one file holds. */
const PAGE = 100
const MOST_EXPORTED = 50_000

async function askedFor(ctx: Context, q: EventsQuery): Promise<EventsAsked> {
  const { timeZone } = await requireOrganisation(ctx.tx)
  return {
    personId: q.personId ?? null,
    kind: q.kind ?? null,
    type: q.type ?? null,
    number: q.number === undefined || q.number.trim() === '' ? null : q.number.trim(),
    from: q.from === undefined ? null : beginOf(q.from, timeZone),
    until: q.until === undefined ? null : beginOf(addDays(q.until, 1), timeZone),
    before: q.before ?? null,
  }
}

/** A page of events, the newest first; `more` is where the next begins. */
export async function readEvents(ctx: Context, q: EventsQuery): Promise<EventsPage> {
  const found = await listEventsAsked(ctx.tx, await askedFor(ctx, q), ctx.now, ctx.actor.id, PAGE + 1)
  const events = found
    .slice(0, PAGE)
    .map(({ hash: _, laidAt: __, previous: ___, actorId: ____, forId: _____, ...e }) => e)
  return {
    events,
    more: found.length > PAGE ? (events.at(-1)?.seq ?? null) : null,
    sorts: await listSorts(ctx.tx),
  }
}

/** The events that are asked for as JSON Lines, each with its link, so that each can be verified by itself. */
export async function exportEvents(ctx: Context, q: EventsQuery): Promise<Buffer> {
  const found = await listEventsAsked(ctx.tx, await askedFor(ctx, q), ctx.now, ctx.actor.id, MOST_EXPORTED + 1)
  if (found.length > MOST_EXPORTED)
    throw refused([`A file holds ${MOST_EXPORTED} events; ask for fewer, or export the whole chain on the server.`])
  const lines = found
    .reverse()
    .map(({ number, hash, laidAt, previous, actor: _, forName: __, about: ___, ...event }) =>
      number === null || hash === null || laidAt === null
        ? writeLine(event, null, null)
        : writeLine(event, { number, hash, laidAt, seq: event.seq }, previous ?? BEFORE_FIRST),
    )
  return Buffer.from(lines.join(''), 'utf8')
}
