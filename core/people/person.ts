import type { Money } from '#core/base/money'
import type { Day } from '#core/base/day'

/** Who a person is to the rules: limits are highest amounts, up to and including; null is none. */
export interface Person {
  readonly id: string
  readonly name: string
  readonly managerId: string | null
  readonly departmentId: string
  readonly ownLimit: Money | null
  readonly decidingLimit: Money | null
  readonly orderingLimit: Money | null
  /** The last day with the organisation; gone from the day after. */
  readonly leftOn: Day | null
}

/** The three limits: of what one raises oneself, decides, and orders. */
export const LIMIT_NAMES = ['own', 'deciding', 'ordering'] as const
export type LimitName = (typeof LIMIT_NAMES)[number]

/** From and until are both inside. */
export interface Absence {
  readonly personId: string
  readonly from: Day
  readonly until: Day
  readonly substituteId: string | null
  /** Who stands in instead for what comes from a department or one below it; of several the nearest. */
  readonly byDepartment?: readonly StandIn[]
}

/** Whoever stands in for what comes from a department. */
export interface StandIn {
  readonly departmentId: string
  readonly substituteId: string
}

/** Who stands in during an absence for what comes from a branch, nearest department first; null where nobody does. */
const standInFor = (a: Absence, branch: readonly string[]): string | null =>
  branch.flatMap((id) => a.byDepartment?.find((s) => s.departmentId === id)?.substituteId ?? [])[0] ?? a.substituteId

/** Where a person stands on a day. */
export type Presence =
  { readonly at: 'here' } | { readonly at: 'gone' } | { readonly at: 'away'; readonly substituteId: string | null }

const byPerson = new WeakMap<readonly Absence[], ReadonlyMap<string, readonly Absence[]>>()

/** The absences of a person; a list of them is looked through once, and not changed afterwards. */
function absencesOf(personId: string, absences: readonly Absence[]): readonly Absence[] {
  const known = byPerson.get(absences)
  if (known !== undefined) return known.get(personId) ?? []
  const found = new Map<string, Absence[]>()
  for (const a of absences) {
    const theirs = found.get(a.personId)
    if (theirs === undefined) found.set(a.personId, [a])
    else theirs.push(a)
  }
  byPerson.set(absences, found)
  return found.get(personId) ?? []
}

/** Where a person stands on a day, and who stands in for what comes from a branch of the organisation. */
export function presence(
  person: Person,
  absences: readonly Absence[],
  today: Day,
  branch: readonly string[] = [],
): Presence {
  if (person.leftOn !== null && person.leftOn < today) return { at: 'gone' }
  const absence = absencesOf(person.id, absences).find((a) => a.from <= today && today <= a.until)
  return absence === undefined ? { at: 'here' } : { at: 'away', substituteId: standInFor(absence, branch) }
}

/** The people and absences that a rule may look at. */
export interface PeopleFacts {
  readonly people: ReadonlyMap<string, Person>
  readonly absences: readonly Absence[]
  readonly today: Day
}

/**
 * Who really acts for a person on what comes from a department, with all above it (`branch`, itself first): they
 * themselves, or their substitute, who hands on to theirs; null when nobody does (gone, away without one, or a circle).
 */
export function whoActs(personId: string, facts: PeopleFacts, branch: readonly string[]): Person | null {
  const seen = new Set<string>()
  for (let id: string | null = personId; id !== null && !seen.has(id);) {
    seen.add(id)
    const person = facts.people.get(id)
    if (person === undefined) return null
    const p = presence(person, facts.absences, facts.today, branch)
    if (p.at === 'here') return person
    if (p.at === 'gone') return null
    id = p.substituteId
  }
  return null
}

/** How the pages look: light, dark, or as the machine is set. */
export const THEMES = ['system', 'light', 'dark'] as const
export type Theme = (typeof THEMES)[number]

/** How mails of one sort come: each when it happens, all of a day in one letter, or not at all. */
export const MAIL_WAYS = ['at once', 'daily', 'never'] as const
export type MailWay = (typeof MAIL_WAYS)[number]

/** Of whom a second factor is asked: of nobody, of administrators and finance, or of everybody. */
export const SECOND_FACTOR_FOR = ['nobody', 'office', 'everybody'] as const
export type SecondFactorFor = (typeof SECOND_FACTOR_FOR)[number]
