import type { Handing } from '#core/approval/handed'
import type { PeopleFacts } from '#core/people/person'
import type { Context } from '../context'
import { reachPeople } from '../people/person-reads'

/** People with whoever something was handed to. */
export async function reachHanded(
  { tx }: Pick<Context, 'tx'>,
  facts: PeopleFacts,
  handed: readonly Handing[],
  currency: string,
): Promise<PeopleFacts> {
  const missing = handed.map((h) => h.toId).filter((id) => !facts.people.has(id))
  if (missing.length === 0) return facts
  const { people, absences } = await reachPeople(tx, [...new Set(missing)], currency, facts.today)
  return {
    ...facts,
    people: new Map([...facts.people, ...people.map((p) => [p.id, p] as const)]),
    absences: [...facts.absences, ...absences.filter((a) => !facts.people.has(a.personId))],
  }
}
