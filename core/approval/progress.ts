import type { Route, RouteStep, Seat } from './route'
import { decidedFor, type Approved } from './standing'

/** What a decision comes to. */
export type DecisionOutcome = 'approved' | 'rejected' | 'sent back'

export type StepState = 'done' | 'open' | 'ahead'

export interface StepProgress {
  readonly step: RouteStep
  readonly state: StepState
  /** Whose decision is still needed in this step: of an "any one" step all its seats, until one decides. */
  readonly waiting: readonly Seat[]
}

export interface Progress {
  readonly state: 'waiting' | 'held' | 'approved'
  readonly steps: readonly StepProgress[]
  /** Who is asked now. */
  readonly open: readonly Seat[]
}

/** Whether an approval fills a seat: by whoever acts in it, or for whoever it belongs to, whoever acted then. */
export const fills = (seat: Seat, approval: Approved): boolean =>
  seat.actorId === approval.actorId || (seat.forId ?? seat.actorId) === decidedFor(approval)

/**
 * Where a route stands after the approvals given so far. Steps of one rank and level are open side by
 * side; the next come when all of them are done. A held route is never approved.
 */
export function progressOf(route: Route, approvals: readonly Approved[]): Progress {
  let openAt: RouteStep | null = null
  const steps = route.steps.map((step): StepProgress => {
    const missing = step.seats.filter((s) => !approvals.some((a) => fills(s, a)))
    const done = step.mode === 'any' ? missing.length < step.seats.length : missing.length === 0
    if (done) return { step, state: 'done', waiting: [] }
    openAt ??= step
    const open = openAt.rank === step.rank && openAt.level === step.level
    return { step, state: open ? 'open' : 'ahead', waiting: missing }
  })
  const has = (id: string) => approvals.some((a) => decidedFor(a) === id)
  const open = steps
    .filter((s) => s.state === 'open')
    .flatMap((s) => s.waiting)
    .filter((s) => (s.after ?? []).every(has))
  const state = openAt !== null ? 'waiting' : route.held !== null ? 'held' : 'approved'
  return { state, steps, open }
}

/** Who is asked once `approval` is given: what the button tells. */
export function nextAfter(route: Route, approvals: readonly Approved[], approval: Approved): Progress {
  return progressOf(route, [...approvals, approval])
}
