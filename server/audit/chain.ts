import { createHash } from 'node:crypto'
import canonicalize from 'canonicalize'
import type { ChainFault, ChainFound, ChainHead } from '#core/audit/integrity'

/** An event as the chain is laid over it, and as it is exported. */
export interface ChainEvent {
  readonly seq: number
  /** The moment in UTC, as ISO 8601 with milliseconds. */
  readonly at: string
  readonly actorId: string | null
  readonly forId: string | null
  readonly type: string
  readonly subjectKind: string
  readonly subjectId: string
  readonly before: unknown
  readonly after: unknown
}
export interface ChainLink extends ChainHead {
  readonly seq: number
  readonly laidAt: string
}
/** A link with its event; the event is null where it is gone. */
export interface Linked {
  readonly link: ChainLink
  readonly event: ChainEvent | null
}

/** The hash before the first link. */
export const BEFORE_FIRST = '0'.repeat(64)
/** An event that came in so long after a later one was linked was not there in time. */
const LATE_MS = 3_600_000

/** The hash of a link: SHA-256 over the one before and the event as RFC 8785 writes it (canonical JSON). */
export function linkHash(
  before: string,
  { seq, at, actorId, forId, type, subjectKind, subjectId, ...e }: ChainEvent,
): string {
  const said = canonicalize({
    ...{ seq, at, actorId, forId, type, subjectKind, subjectId },
    before: e.before ?? null,
    after: e.after ?? null,
  })
  return createHash('sha256')
    .update(before)
    .update('\n')
    .update(said ?? '', 'utf8')
    .digest('hex')
}

/** Follows a chain link by link, as they come; `fault` is the first thing that does not fit. */
export class ChainCheck {
  private links = 0
  private head: ChainHead | null = null
  private fault: ChainFault | null = null
  private highestSeq = 0
  /** How far events had been linked at the laying of each of the newest links, and long before them. */
  private readonly recent: { readonly laidAt: number; readonly seq: number }[] = []
  private settledSeq = 0

  /** `kept` is a head that was kept outside: the link of its number has to have its hash. */
  constructor(private readonly kept: ChainHead | null = null) {}

  take({ link, event }: Linked): void {
    const before = this.head
    this.settle(Date.parse(link.laidAt))
    this.fault ??= this.faultOf({ link, event }, before)
    this.links += 1
    this.head = { number: link.number, hash: link.hash }
    this.highestSeq = Math.max(this.highestSeq, link.seq)
    this.recent.push({ laidAt: Date.parse(link.laidAt), seq: this.highestSeq })
    if (this.recent.at(-2)?.laidAt === this.recent.at(-1)?.laidAt) this.recent.splice(-2, 1)
  }

  /** Below which event everything had its link an hour before a moment: what comes in there then was not there. */
  private settle(laidAt: number): void {
    for (let first = this.recent[0]; first !== undefined && first.laidAt <= laidAt - LATE_MS; [first] = this.recent) {
      this.settledSeq = first.seq
      this.recent.shift()
    }
  }

  private faultOf({ link, event }: Linked, before: ChainHead | null): ChainFault | null {
    const { number, seq } = link
    const next = (before?.number ?? 0) + 1
    if (number !== next) return { code: 'link-missing', number: next, seq: null }
    if (event === null) return { code: 'event-gone', number, seq }
    if (event.seq !== seq || linkHash(before?.hash ?? BEFORE_FIRST, event) !== link.hash)
      return { code: 'event-changed', number, seq }
    if (this.kept?.number === number && this.kept.hash !== link.hash) return { code: 'head-differs', number, seq: null }
    return seq < this.settledSeq ? { code: 'event-late', number, seq } : null
  }

  /** Events up to this one had their links long before the newest was laid. */
  get settled(): number {
    return this.settledSeq
  }

  /** What it came to; `unlinked` are events without a link. */
  end(unlinked: readonly number[] = []): ChainFound {
    const cutOff = this.kept !== null && this.kept.number > (this.head?.number ?? 0) ? this.kept.number : null
    const without = unlinked.find((seq) => seq < this.settledSeq)
    const fault =
      this.fault ??
      (cutOff === null ? null : ({ code: 'head-differs', number: cutOff, seq: null } as const)) ??
      (without === undefined ? null : ({ code: 'event-unlinked', number: null, seq: without } as const))
    return { links: this.links, head: this.head, fault }
  }
}

/** A link with its event as a line of JSON Lines, with what proves it. An event without a link has no number. */
export const writeLine = (event: ChainEvent, link: ChainLink | null, previous: string | null): string =>
  `${JSON.stringify({
    ...{ number: link?.number ?? null, hash: link?.hash ?? null, previous, laidAt: link?.laidAt ?? null },
    ...event,
  })}\n`

/** A line as it was written; null where it is none. */
export function readLine(line: string): { readonly link: ChainLink | null; readonly event: ChainEvent } | null {
  try {
    const {
      number,
      hash,
      previous: _,
      laidAt,
      ...event
    } = JSON.parse(line) as ChainEvent & {
      number: number | null
      hash: string | null
      previous: string | null
      laidAt: string | null
    }
    if (typeof event.seq !== 'number') return null
    const isLinked = number !== null && hash !== null && laidAt !== null
    return { link: isLinked ? { number, hash, laidAt, seq: event.seq } : null, event }
  } catch {
    return null
  }
}
