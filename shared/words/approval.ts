import type { RouteNote, SeatReason } from '#core/approval/route'
import type { Ways } from './ways'

/** Why a person sits on a route, said to somebody who may be `you` or that person's colleague. */
export function saySeat(
  why: SeatReason,
  names: {
    readonly of?: string | null
    readonly forName?: string | null
    readonly lines?: readonly string[]
    /** Whoever passed it on, or wished them to decide. */
    readonly byName?: string | null
    /** Of an order, what somebody may order is told. */
    readonly isOrder?: boolean
  },
  ways: Ways,
): string {
  if (why.code === 'escalated') return `asked beside ${names.forName ?? 'somebody'}, who has let it wait`
  const instead = names.forName == null ? '' : `for ${names.forName}, who is away; `
  const by = names.byName ?? 'somebody who was asked'
  const does = names.isOrder === true ? 'order' : 'approve'
  return instead + sayReason(why, { of: names.of ?? 'the owner', lines: names.lines ?? [], by, does }, ways)
}

function sayReason(
  why: SeatReason,
  {
    of,
    lines,
    by,
    does,
  }: {
    readonly of: string
    readonly lines: readonly string[]
    readonly by: string
    readonly does: 'approve' | 'order'
  },
  ways: Ways,
): string {
  const limit =
    'limit' in why && why.limit !== null ? `may ${does} up to ${ways.amount(why.limit)}` : 'has no spending limit'
  switch (why.code) {
    case 'passed-on':
      return `${by} passed it on; ${limit}`
    case 'asked-first':
      return `${by} wants them to decide first`
    case 'asked-as-well':
      return `${by} wants them to decide as well`
    case 'manager':
      return `${of === 'you' ? 'your' : of === 'the owner' ? 'the owner’s' : `${of}’s`} manager; ${limit}`
    case 'higher-manager':
      return why.covers ? `the first above whose limit covers it; ${limit}` : `next in line; ${limit}`
    case 'named':
      return 'named by the policy'
    case 'role':
      return `holds the role ${why.role}`
    case 'group':
      return `one of ${why.name}`
    case 'budget-holder':
      return lines.length > 0 ? `budget holder of ${lines.join(' and ')}` : 'budget holder'
    case 'escalated':
      return 'asked beside somebody who has let it wait'
    case 'fallback':
      return why.because === 'no rule fits'
        ? 'decides what no rule fits'
        : why.because === 'nobody covers'
          ? 'decides since nobody’s limit covers it'
          : why.because === 'skipped'
            ? 'decides in the place of somebody who was skipped'
            : 'decides since nobody else is there'
  }
}

/** Why somebody is not asked; null for notes that are not worth a sentence here. */
export function sayNote(note: RouteNote, nameOf: (id: string) => string, ways: Ways): string | null {
  switch (note.code) {
    case 'spared-by-own-limit':
      return `Within your own limit of ${ways.amount(note.limit)}, no manager is asked.`
    case 'own-limit-together':
      return (
        `With what was asked of the same supplier within ${note.days} days this comes to ` +
        `${ways.amount(note.together)}, more than the own limit of ${ways.amount(note.limit)}.`
      )
    case 'own-document':
      return `${nameOf(note.personId)} raised or owns this and is not asked.`
    case 'away-without-substitute':
      return `${nameOf(note.personId)} is away without a substitute and is passed over.`
    case 'gone':
      return `${nameOf(note.personId)} has left and is passed over.`
    case 'does-not-cover':
      return `${nameOf(note.personId)} may not decide so much.`
    case 'asked-later':
      return `${nameOf(note.personId)} is asked once, later on.`
    case 'rule-does-not-fit':
      return null
  }
}
