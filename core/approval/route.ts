import { covers, type Money } from '#core/base/money'
import { presence, whoActs, type PeopleFacts, type Person } from '#core/people/person'
import { inHandsOf, type Handing } from './handed'
import { holds, isFor, limitFor, type Policy, type Rule, type Subject } from './policy'
import { FEW_RULES, rulesThatMayFit } from './rule-index'
import { decidedFor, type Approved } from './standing'

/** Why a person sits in a step. */
export type SeatReason =
  | { readonly code: 'manager'; readonly of: string; readonly limit: Money | null; readonly covers: boolean }
  | { readonly code: 'higher-manager'; readonly limit: Money | null; readonly covers: boolean }
  | { readonly code: 'named' }
  | { readonly code: 'role'; readonly role: string }
  | { readonly code: 'group'; readonly name: string }
  | { readonly code: 'budget-holder'; readonly budgetLineIds: readonly string[] }
  | { readonly code: 'fallback'; readonly because: FallbackCause }
  /** Somebody who was asked let it wait for too long; either of the two decides. */
  | { readonly code: 'escalated'; readonly of: string }
  /** Somebody who was asked has them decide instead: within a limit of their own, where limits count. */
  | { readonly code: 'passed-on'; readonly of: string; readonly limit: Money | null; readonly covers: boolean }
  /** Somebody who was asked has them decide before, or as well. */
  | { readonly code: 'asked-first' | 'asked-as-well'; readonly of: string }
export type FallbackCause = 'no rule fits' | 'nobody covers' | 'step is empty' | 'skipped'

/** One person's place in a step: who really acts, and for whom when somebody is away. */
export interface Seat {
  readonly actorId: string
  readonly forId: string | null
  readonly why: SeatReason
  /** Whoever has to approve before this one is asked, in the same step of the way; none of old routes has it. */
  readonly after?: readonly string[]
}

export interface RouteStep {
  readonly rank: number
  /** The place within a chain; 0 elsewhere. Steps of one rank and level run side by side. */
  readonly level: number
  readonly ruleId: string | null
  readonly mode: 'any' | 'all'
  readonly seats: readonly Seat[]
}

/** Why somebody is not asked, or a step came out as it did. */
export type RouteNote =
  | { readonly code: 'spared-by-own-limit'; readonly limit: Money }
  /** The own limit would cover it alone, and not with what was asked of the same supplier in these days. */
  | { readonly code: 'own-limit-together'; readonly limit: Money; readonly together: Money; readonly days: number }
  | { readonly code: 'rule-does-not-fit'; readonly ruleId: string }
  | { readonly code: 'own-document'; readonly personId: string }
  | { readonly code: 'away-without-substitute'; readonly personId: string }
  | { readonly code: 'gone'; readonly personId: string }
  | { readonly code: 'does-not-cover'; readonly personId: string }
  | { readonly code: 'asked-later'; readonly personId: string }

export interface Route {
  /** In the order in which they run. Empty and not held: the document passes at once. */
  readonly steps: readonly RouteStep[]
  /** The route cannot be made: a step came to nobody and the fallback cannot act. */
  readonly held: {
    readonly code: 'no-fallback' | 'fallback-barred' | 'fallback-away'
    readonly because: FallbackCause
  } | null
  readonly notes: readonly RouteNote[]
}

/** A route while it is worked out, with what it is worked out from. */
interface InMaking {
  readonly subject: Subject
  readonly policy: Policy
  readonly facts: PeopleFacts
  /** Decisions that were made stay, whoever is away or gone since: by whom they are. */
  readonly decided: ReadonlyMap<string, Approved>
  readonly handed: readonly Handing[]
  readonly steps: RouteStep[]
  readonly notes: RouteNote[]
  readonly chains: Map<'covered' | 'top', Chain>
  held: Route['held']
}

/** Where a step stands among the others, and the rule that it comes from. */
interface Place {
  readonly rank: number
  readonly level: number
  readonly ruleId: string | null
}

/** What happened on the way: whose decision is late, and what those who were asked had others do. */
export interface OnTheWay {
  readonly late?: readonly string[]
  readonly handed?: readonly Handing[]
}

/**
 * Works out who decides on a document, and says why each is asked and why others are not. Absences
 * and leavers are those of `facts.today`; `approvals` that stand keep the seats of whoever gave them. A document is
 * never approved because nobody was found. Beside whoever is `late` with a decision of theirs, the next of their
 * managers is asked in their place. What was `handed` to somebody who cannot decide stays with whoever had it.
 */
export function makeRoute(
  subject: Subject,
  policy: Policy,
  facts: PeopleFacts,
  approvals: readonly Approved[] = [],
  { late = [], handed = [] }: OnTheWay = {},
): Route {
  const decided = new Map(approvals.map((a) => [decidedFor(a), a]))
  const making: InMaking = {
    subject,
    policy,
    facts,
    decided,
    handed,
    steps: [],
    notes: [],
    chains: new Map(),
    held: null,
  }
  const fits = rulesThatMayFit(policy, subject).filter(
    (rule) => rule.conditions.every((c) => holds(c, subject)) && !isIdle(rule, subject, facts),
  )
  noteOthers(making, fits)
  const spared = isSpared(fits, subject, facts)
  if (spared !== null) making.notes.push({ code: 'spared-by-own-limit', limit: spared })
  else making.notes.push(...notTogether(subject, policy, facts))
  if (fits.length === 0) {
    // An order is sent because somebody's authority does not cover it: it never passes for want of a rule.
    if (policy.ending === 'fallback' || subject.document !== 'requisition')
      addFallback(making, { rank: 0, level: 0, ruleId: null }, 'no rule fits')
  }
  for (const rule of fits) addRule(making, rule, spared !== null)
  const ordered = making.steps
    .map((step, at) => ({ step, at }))
    .sort((a, b) => a.step.rank - b.step.rank || a.step.level - b.step.level || a.at - b.at)
    .map((s) => s.step)
  const once = addHanded(making, askOnce(ordered, making.notes))
  return { steps: escalate(making, once, late), held: making.held, notes: making.notes }
}

/** Notes the rules for such documents that do not fit; of many rules each note is made once. */
function noteOthers({ policy, subject, notes }: InMaking, fits: readonly Rule[]): void {
  const known = unfit.get(policy) ?? policy.rules.map((rule) => [rule, noteOf(rule)] as const)
  if (policy.rules.length > FEW_RULES) unfit.set(policy, known)
  const fit = new Set(fits)
  for (const [rule, note] of known) if (!fit.has(rule) && isFor(rule, subject.document)) notes.push(note)
}
const noteOf = ({ id }: Rule): RouteNote => ({ code: 'rule-does-not-fit', ruleId: id })
const unfit = new WeakMap<Policy, readonly (readonly [Rule, RouteNote])[]>()

function isSpared(fits: readonly Rule[], subject: Subject, facts: PeopleFacts): Money | null {
  return fits.some((r) => r.sparesManagers) ? coveringOwnLimit(subject, facts) : null
}

/** The owner's own limit where it covers what they both own and send; else null. */
function coveringOwnLimit(subject: Subject, facts: PeopleFacts): Money | null {
  if (subject.document !== 'requisition' || subject.ownerId !== subject.raisedById) return null
  const limit = facts.people.get(subject.ownerId)?.ownLimit ?? null
  return covers(limit, subject.together) ? limit : null
}

/** Says that an own limit covers a document alone, and not together with those that are looked at with it. */
function notTogether(subject: Subject, policy: Policy, facts: PeopleFacts): RouteNote[] {
  const { together, amount } = subject
  const limit = coveringOwnLimit({ ...subject, together: amount }, facts)
  if (limit === null || policy.ownLimitDays === null || covers(limit, together)) return []
  if (!policy.rules.some((r) => r.sparesManagers && r.conditions.every((c) => holds(c, subject)))) return []
  return [{ code: 'own-limit-together', limit, together, days: policy.ownLimitDays }]
}

/** An own limit written as a rule of its own fits only where the limit covers the document. */
function isIdle(rule: Rule, subject: Subject, facts: PeopleFacts): boolean {
  return rule.sparesManagers && rule.steps.length === 0 && coveringOwnLimit(subject, facts) === null
}

function isBarred(personId: string, subject: Subject): boolean {
  return personId === subject.ownerId || personId === subject.raisedById || subject.ownedBy.includes(personId)
}

/** The seat of a person, or null with a note: barred, away without a substitute, gone, a substitute barred. */
function seatOf(making: InMaking, personId: string, why: SeatReason): Seat | null {
  const { subject, facts } = making
  if (isBarred(personId, subject)) {
    making.notes.push({ code: 'own-document', personId })
    return null
  }
  const gave = making.decided.get(personId)
  if (gave !== undefined && !isBarred(gave.actorId, subject)) return { ...gave, why }
  const actor = whoActs(personId, facts, subject.branch)
  if (actor === null) {
    const person = facts.people.get(personId)
    const gone = person === undefined || presence(person, facts.absences, facts.today).at === 'gone'
    making.notes.push({ code: gone ? 'gone' : 'away-without-substitute', personId })
    return null
  }
  if (isBarred(actor.id, subject)) {
    making.notes.push({ code: 'own-document', personId: actor.id })
    return null
  }
  return { actorId: actor.id, forId: actor.id === personId ? null : personId, why }
}

function addFallback(making: InMaking, place: Place, because: FallbackCause): void {
  const { fallbackId } = making.policy
  if (fallbackId === null) {
    making.held ??= { code: 'no-fallback', because }
    return
  }
  const before = making.notes.length
  const seat = seatOf(making, fallbackId, { code: 'fallback', because })
  if (seat === null) {
    const barred = making.notes[before]?.code === 'own-document'
    making.held ??= { code: barred ? 'fallback-barred' : 'fallback-away', because }
    return
  }
  making.steps.push({ ...place, mode: 'any', seats: [seat] })
}

function addRule(making: InMaking, rule: Rule, spared: boolean): void {
  for (const { who, rank, mustCover } of rule.steps) {
    const place = { rank, level: 0, ruleId: rule.id }
    if (who.by === 'chain') {
      if (!spared) addChain(making, place, who.until)
      continue
    }
    if (who.by === 'budget holders') {
      addHolders(making, place, mustCover)
      continue
    }
    const ids = who.by === 'person' ? [who.personId] : who.by === 'role' ? who.holders : who.members
    const why: SeatReason =
      who.by === 'person'
        ? { code: 'named' }
        : who.by === 'role'
          ? { code: 'role', role: who.role }
          : { code: 'group', name: who.name }
    addSeats(making, place, who.by === 'group' ? who.mode : 'any', ids, why, mustCover)
  }
}

/**
 * A step in which these people sit; with `mustCover` without those whose limit does not cover. One that stands empty
 * comes to the fallback: because nobody is there, or because nobody who is there covers.
 */
function addSeats(
  making: InMaking,
  place: Place,
  mode: RouteStep['mode'],
  ids: readonly string[],
  why: SeatReason,
  mustCover: boolean,
): void {
  let isShort = false
  const goesOnFrom: string[] = []
  const seats = ids.flatMap((id) => {
    const { holder, does, whyNow } = holderOf(making, id)
    const isPassedOn = holder !== id
    const seat = seatOf(making, holder, whyNow ?? why)
    if (seat === null) return []
    if (!mustCover || does) return [seat]
    if (isPassedOn) {
      goesOnFrom.push(id)
      return [seat]
    }
    making.notes.push({ code: 'does-not-cover', personId: id })
    isShort = true
    return []
  })
  if (seats.length > 0) making.steps.push({ ...place, mode, seats })
  else addFallback(making, place, isShort ? 'nobody covers' : 'step is empty')
  for (const id of goesOnFrom) goOn(making, { ...place, level: place.level + 1 }, id)
}

/**
 * Who has the place of a person: whoever it was passed on to while they may decide, with the reason, or the person
 * themselves, with none. `does`: they have the authority for the amount, by their limit, or since they decide in the
 * end.
 */
function holderOf(
  { subject, facts, decided, handed }: InMaking,
  personId: string,
): { holder: string; limit: Money | null; does: boolean; whyNow: SeatReason | null } {
  const passed = inHandsOf(personId, handed)
  const actor = whoActs(passed.holder, facts, subject.branch)
  const may =
    passed.holder !== personId &&
    !isBarred(passed.holder, subject) &&
    (decided.has(passed.holder) || (actor !== null && !isBarred(actor.id, subject)))
  const holder = may ? passed.holder : personId
  const limit = limitFor(facts.people.get(holder), subject.document)
  if (may && passed.isSkipped) return { holder, limit, does: true, whyNow: { code: 'fallback', because: 'skipped' } }
  const does = covers(limit, subject.amount)
  return { holder, limit, does, whyNow: may ? { code: 'passed-on', of: personId, limit, covers: does } : null }
}

/** After somebody with a place whose limit does not cover: the next manager above its first holder whose limit does. */
function goOn(making: InMaking, place: Place, personId: string): void {
  const { subject, facts } = making
  for (const manager of managersAbove(personId, facts)) {
    const limit = limitFor(manager, subject.document)
    if (!covers(limit, subject.amount)) continue
    const seat = seatOf(making, manager.id, { code: 'higher-manager', limit, covers: true })
    if (seat === null) continue
    making.steps.push({ ...place, mode: 'any', seats: [seat] })
    return
  }
  addFallback(making, place, 'nobody covers')
}

/** The managers above a person, the nearest first; a circle ends where it began. */
function managersAbove(personId: string, { people }: PeopleFacts): Person[] {
  const above: Person[] = []
  let next = people.get(people.get(personId)?.managerId ?? '')
  while (next !== undefined && next.id !== personId && !above.includes(next)) {
    above.push(next)
    next = people.get(next.managerId ?? '')
  }
  return above
}

function addHolders(making: InMaking, place: Place, mustCover: boolean): void {
  const byHolder = new Map<string | null, string[]>()
  for (const c of making.subject.codings) {
    const lines = byHolder.get(c.holderId) ?? []
    if (!lines.includes(c.budgetLineId)) lines.push(c.budgetLineId)
    byHolder.set(c.holderId, lines)
  }
  for (const [holderId, budgetLineIds] of byHolder) {
    const ids = holderId === null ? [] : [holderId]
    addSeats(making, place, 'any', ids, { code: 'budget-holder', budgetLineIds }, mustCover)
  }
}

/**
 * The chain of managers of the owner, level by level. Whoever is barred, gone, or away without a
 * substitute is passed over. "Until covered" stops at the first whose own limit covers the amount; where
 * nobody's of those asked does, the fallback is asked after them, also in a chain to the top.
 */
function addChain(making: InMaking, place: Place, until: 'covered' | 'top'): void {
  const known = making.chains.get(until)
  const chain = known ?? climb(making, until)
  // Several rules climb the same way: it is worked out once, and noted each time.
  if (known === undefined) making.chains.set(until, chain)
  else making.notes.push(...known.notes)
  const { seats, covered } = chain
  seats.forEach((seat, level) => making.steps.push({ ...place, level, mode: 'any', seats: [seat] }))
  if (!covered) {
    const level = seats.length
    addFallback(making, { ...place, level }, level === 0 ? 'step is empty' : 'nobody covers')
  }
}

/** Whom a chain asks, whether somebody of them covers, and what is noted of it. */
interface Chain {
  readonly seats: readonly Seat[]
  readonly covered: boolean
  readonly notes: readonly RouteNote[]
}

function climb(making: InMaking, until: 'covered' | 'top'): Chain {
  const { subject, facts } = making
  const noted = making.notes.length
  const seen = new Set<string>([subject.ownerId])
  const seats: Seat[] = []
  let covered = false
  let below: Person | undefined = facts.people.get(subject.ownerId)
  while (!(covered && until === 'covered') && below?.managerId != null && !seen.has(below.managerId)) {
    const manager = facts.people.get(below.managerId)
    if (manager === undefined) break
    seen.add(manager.id)
    const { holder, limit, does, whyNow } = holderOf(making, manager.id)
    const why: SeatReason =
      below.id === subject.ownerId
        ? { code: 'manager', of: subject.ownerId, limit, covers: does }
        : { code: 'higher-manager', limit, covers: does }
    const seat = seatOf(making, holder, whyNow ?? why)
    if (seat !== null) {
      seats.push(seat)
      covered ||= does
    }
    below = manager
  }
  return { seats, covered, notes: making.notes.slice(noted) }
}

/**
 * The same person, the one who really acts, is asked once: at their last place. They leave earlier
 * steps; one that stands empty then is met by their later decision and falls away.
 */
function askOnce(steps: readonly RouteStep[], notes: RouteNote[]): RouteStep[] {
  const last = new Map<string, RouteStep>()
  for (const step of steps) for (const seat of step.seats) last.set(seat.actorId, step)
  return steps.flatMap((step) => {
    const asked = new Set<string>()
    const seats = step.seats.filter((seat) => {
      const here = last.get(seat.actorId) === step && !asked.has(seat.actorId)
      if (!here && last.get(seat.actorId) !== step) notes.push({ code: 'asked-later', personId: seat.actorId })
      asked.add(seat.actorId)
      return here
    })
    return seats.length === 0 ? [] : [{ ...step, seats }]
  })
}

/**
 * Whom those who are asked have decide before them, or as well: each in a step of their own at the same place, before
 * which whoever wished it is not asked. Whoever is asked anyway, or cannot decide, is not asked so.
 */
function addHanded(making: InMaking, steps: readonly RouteStep[]): RouteStep[] {
  const all = [...steps]
  for (const { how, byId, toId } of making.handed) {
    if (
      how === 'on' ||
      how === 'skip' ||
      all.some((s) => s.seats.some((seat) => [seat.actorId, seat.forId].includes(toId)))
    )
      continue
    const at = all.findIndex((s) => s.seats.some((seat) => decidedFor(seat) === byId))
    const step = all[at]
    if (step === undefined) continue
    const code = how === 'first' ? 'asked-first' : 'asked-as-well'
    const seat = seatOf(making, toId, { code, of: byId })
    if (seat === null || all.some((s) => s.seats.some((x) => x.actorId === seat.actorId))) continue
    const waits = (s: Seat): Seat =>
      how === 'first' && decidedFor(s) === byId ? { ...s, after: [...(s.after ?? []), toId] } : s
    const theirs = { ...step, mode: 'any', seats: [seat] } as const
    all.splice(at, 1, theirs, { ...step, seats: step.seats.map(waits) })
  }
  return all
}

/**
 * Beside a seat of whoever is late sits the next above them who is there, may decide on it, and is not asked already;
 * they decide for whoever is late, so that the step asks one of the two. With nobody above, it goes on to wait.
 */
function escalate(making: InMaking, steps: readonly RouteStep[], late: readonly string[]): RouteStep[] {
  if (late.length === 0) return [...steps]
  const asked = new Set(steps.flatMap((s) => s.seats.map((seat) => seat.actorId)))
  return steps.map((step) => ({
    ...step,
    seats: step.seats.flatMap((seat) => {
      const of = seat.forId ?? seat.actorId
      const above = late.includes(of) && !making.decided.has(of) ? nextAbove(making, of, asked) : null
      if (above === null) return [seat]
      asked.add(above)
      return [seat, { actorId: above, forId: of, why: { code: 'escalated', of } }]
    }),
  }))
}

/** Whoever acts for the nearest manager of a person who may decide on the document and is not among `asked`. */
function nextAbove({ subject, facts }: InMaking, personId: string, asked: ReadonlySet<string>): string | null {
  for (const { id } of managersAbove(personId, facts)) {
    const actor = isBarred(id, subject) ? null : whoActs(id, facts, subject.branch)
    if (actor !== null && !isBarred(actor.id, subject) && !asked.has(actor.id)) return actor.id
  }
  return null
}
