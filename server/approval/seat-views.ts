import { fills, progressOf, type StepState } from '#core/approval/progress'
import type { Seat } from '#core/approval/route'
import type { SeatView } from '#shared/contract/decide'
import { saySeat } from '#shared/words/approval'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { reachPeople } from '../people/person-reads'
import { readDecisions, type RouteRow } from './reads'

/** The route with who was asked, why, and what they said. */
export async function seatViews(
  { tx, actor }: Context,
  route: RouteRow,
  owner: string,
  payers: ReadonlyMap<string, string>,
  currency: string,
): Promise<SeatView[]> {
  const { decisions, standing } = await readDecisions(tx, route.documentId)
  const progress = progressOf(route.route, standing)
  const ofRoute = decisions.filter((d) => d.round === route.round && !d.takenBack)
  const everyone = route.route.steps.flatMap((s) =>
    s.seats.flatMap((x) => [x.actorId, ...(x.forId === null ? [] : [x.forId]), ...handerOf(x)]),
  )
  const people = new Map(
    (await reachPeople(tx, [...new Set(everyone)], currency, '1900-01-01')).people.map((p) => [p.id, p.name]),
  )
  const placeOf = (s: Seat, state: StepState) => (state === 'open' && !progress.open.includes(s) ? 'ahead' : state)
  return progress.steps.flatMap(({ step, state, waiting }) =>
    step.seats.flatMap((s) => {
      const decision = [...standing, ...ofRoute].find((d) => fills(s, d))
      if (state === 'done' && decision === undefined) return []
      const lines =
        s.why.code === 'budget-holder'
          ? s.why.budgetLineIds.map((b) => payers.get(b) ?? '').filter((n) => n !== '')
          : []
      return [
        {
          actorId: s.actorId,
          name: people.get(s.actorId) ?? '',
          you: s.actorId === actor.id,
          why: saySeat(
            s.why,
            {
              of: route.route.steps.length > 0 ? owner : null,
              forName: s.forId === null ? null : (people.get(s.forId) ?? null),
              lines,
              byName: people.get(handerOf(s)[0] ?? '') ?? null,
              isOrder: route.sent.document === 'order',
            },
            waysOf(actor.locale),
          ),
          state: stateOf(route, decision, decision !== undefined && !waiting.includes(s) ? 'done' : placeOf(s, state)),
          at: decision?.at ?? null,
          byMail: decision !== undefined && 'byMail' in decision && decision.byMail,
          comment: decision?.comment ?? '',
        },
      ]
    }),
  )
}

/** Who handed somebody their seat. */
const handerOf = ({ why }: Seat): string[] =>
  why.code === 'passed-on' || why.code === 'asked-first' || why.code === 'asked-as-well' ? [why.of] : []

/** Where a seat stands: of a stopped route nobody is asked any more. */
function stateOf(route: RouteRow, decision: { outcome?: string } | undefined, state: StepState): SeatView['state'] {
  if (route.state !== 'stopped' || state === 'done') return state
  return decision?.outcome === 'sent back' || decision?.outcome === 'rejected' ? decision.outcome : 'over'
}
