import { fills, progressOf } from '#core/approval/progress'
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
    s.seats.flatMap((x) => (x.forId === null ? [x.actorId] : [x.actorId, x.forId])),
  )
  const people = new Map(
    (await reachPeople(tx, [...new Set(everyone)], currency, '1900-01-01')).people.map((p) => [p.id, p.name]),
  )
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
          name: s.actorId === actor.id ? 'You' : (people.get(s.actorId) ?? ''),
          why: saySeat(
            s.why,
            {
              of: route.route.steps.length > 0 ? owner : null,
              forName: s.forId === null ? null : (people.get(s.forId) ?? null),
              lines,
            },
            waysOf(actor.locale),
          ),
          state: decision !== undefined && !waiting.includes(s) ? ('done' as const) : state,
          at: decision?.at ?? null,
          comment: decision?.comment ?? '',
        },
      ]
    }),
  )
}
