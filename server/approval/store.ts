import { randomUUID } from 'node:crypto'
import { and, eq, inArray } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Route } from '#core/approval/route'
import type { SentSubject } from '#core/approval/policy'
import type { Progress } from '#core/approval/progress'
import { approvalDecision, approvalHanding, approvalRoute, approvalSeat } from '../db/schema/approval'
import type { Tx } from '../db/client'
import { sendAlong } from '../db/transaction'

export async function insertRoute(
  tx: Tx,
  r: {
    documentKind: string
    documentId: string
    round: number
    state: 'open' | 'held' | 'approved'
    amount: DecimalText
    currency: string
    route: Route
    sent: SentSubject
    keepsEarlier: boolean
    policyId: string
    now: Date
  },
): Promise<string> {
  const id = randomUUID()
  await sendAlong(tx, tx.insert(approvalRoute).values({ id, ...r, createdAt: r.now }))
  return id
}

export async function updateRoute(
  tx: Tx,
  id: string,
  change: { state: 'open' | 'held' | 'approved' | 'stopped'; route?: Route; policyId?: string },
): Promise<void> {
  await sendAlong(tx, tx.update(approvalRoute).set(change).where(eq(approvalRoute.id, id)))
}

/** Since when a seat has been open, and what became of that. */
export interface OpenSince {
  readonly openedAt: Date | null
  readonly remindedAt: Date | null
  readonly lateAt: Date | null
}

export interface Asked {
  actorId: string
  forId: string | null
}

/**
 * Writes the seats of a route that is worked out again, keeping since when a seat has been open; returns who is newly
 * asked.
 */
export async function writeSeats(
  tx: Tx,
  routeId: string,
  documentId: string,
  progress: Progress,
  now: Date,
): Promise<Asked[]> {
  const before = await tx.delete(approvalSeat).where(eq(approvalSeat.routeId, routeId)).returning({
    actorId: approvalSeat.actorId,
    state: approvalSeat.state,
    openedAt: approvalSeat.openedAt,
    remindedAt: approvalSeat.remindedAt,
    lateAt: approvalSeat.lateAt,
  })
  const open = before.filter((s) => s.state === 'open')
  return insertSeats(tx, routeId, documentId, progress, now, new Map(open.map((s) => [s.actorId, s])))
}

/**
 * Writes the seats of a new route as its progress has them; returns who is asked. `openSince` tells who was asked
 * before, and since when.
 */
export async function insertSeats(
  tx: Tx,
  routeId: string,
  documentId: string,
  progress: Progress,
  now: Date,
  openSince: ReadonlyMap<string, OpenSince> = new Map(),
): Promise<Asked[]> {
  const seats = progress.steps.flatMap(({ step, state, waiting }, stepAt) =>
    step.seats.map((seat) => {
      const isWaiting = waiting.includes(seat)
      const isOpen = progress.open.includes(seat)
      const seatState =
        state === 'done' ? (isWaiting ? 'met' : 'decided') : isWaiting ? (isOpen ? 'open' : 'ahead') : 'decided'
      const since = openSince.get(seat.actorId)
      return {
        routeId,
        documentId,
        stepAt,
        actorId: seat.actorId,
        forId: seat.forId,
        why: seat.why,
        state: seatState,
        openedAt: seatState === 'open' ? (since?.openedAt ?? now) : null,
        remindedAt: seatState === 'open' ? (since?.remindedAt ?? null) : null,
        lateAt: seatState === 'open' ? (since?.lateAt ?? null) : null,
      }
    }),
  )
  if (seats.length > 0) await sendAlong(tx, tx.insert(approvalSeat).values(seats))
  return seats
    .filter((s) => s.state === 'open' && !openSince.has(s.actorId))
    .map(({ actorId, forId }) => ({ actorId, forId }))
}

/** Notes that whoever sits in an open seat was reminded, or that it is late. */
export async function markWaiting(tx: Tx, seatId: string, as: 'remindedAt' | 'lateAt', now: Date): Promise<void> {
  await tx
    .update(approvalSeat)
    .set({ [as]: now })
    .where(eq(approvalSeat.id, seatId))
}

/** Nobody is asked any more: the route ended some other way. */
export async function dropSeats(tx: Tx, routeId: string): Promise<{ actorId: string }[]> {
  return tx
    .update(approvalSeat)
    .set({ state: 'dropped', openedAt: null })
    .where(and(eq(approvalSeat.routeId, routeId), inArray(approvalSeat.state, ['open', 'ahead'])))
    .returning({ actorId: approvalSeat.actorId })
}

export async function insertDecision(
  tx: Tx,
  d: typeof approvalDecision.$inferInsert & { readonly id: string },
): Promise<void> {
  await tx.insert(approvalDecision).values(d)
}

/** What a sending said differently was undone: what stood before it goes on to stand. */
export async function keepEarlier(tx: Tx, documentId: string, round: number): Promise<void> {
  await tx
    .update(approvalRoute)
    .set({ keepsEarlier: true })
    .where(and(eq(approvalRoute.documentId, documentId), eq(approvalRoute.round, round)))
}

export async function insertHanding(tx: Tx, h: typeof approvalHanding.$inferInsert): Promise<void> {
  await tx.insert(approvalHanding).values(h)
}

export async function markCalledBack(tx: Tx, handingId: string, now: Date): Promise<void> {
  await tx.update(approvalHanding).set({ calledBackAt: now }).where(eq(approvalHanding.id, handingId))
}

export async function markTakenBack(tx: Tx, decisionId: string, now: Date): Promise<void> {
  await tx.update(approvalDecision).set({ takenBackAt: now }).where(eq(approvalDecision.id, decisionId))
}
