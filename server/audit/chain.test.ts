import { createHash } from 'node:crypto'
import { describe, expect, test } from 'vitest'
import { BEFORE_FIRST, ChainCheck, linkHash, readLine, writeLine, type ChainEvent, type Linked } from './chain'

const event = (seq: number, change: Partial<ChainEvent> = {}): ChainEvent => ({
  seq,
  at: '2026-11-27T09:00:00.000Z',
  actorId: null,
  forId: null,
  type: 'sent',
  subjectKind: 'requisition',
  subjectId: '00000000-0000-4000-8000-000000000009',
  before: null,
  after: { amount: '12.50', b: 1, a: { z: null, y: 'é' } },
  ...change,
})
/** A chain over events as it is laid, a minute a link. */
function chainOf(events: readonly ChainEvent[]): Linked[] {
  let hash = BEFORE_FIRST
  return events.map((e, i) => {
    hash = linkHash(hash, e)
    const laidAt = new Date(Date.UTC(2026, 10, 27, 9, i)).toISOString()
    return { link: { number: i + 1, seq: e.seq, hash, laidAt }, event: e }
  })
}
function check(
  chain: readonly Linked[],
  kept: { number: number; hash: string } | null = null,
  unlinked: number[] = [],
) {
  const c = new ChainCheck(kept)
  for (const l of chain) c.take(l)
  return c.end(unlinked)
}
const whole = chainOf([event(3), event(5), event(4), event(9), event(10)])
const [, second, third] = whole
const at = (i: number) => whole[i] ?? expect.fail('it is there')

test('the hash is SHA-256 over the one before and the event as RFC 8785 writes it', () => {
  // Keys in order, nothing between, characters as they are: RFC 8785, section 3.2 (its rules, our example).
  const said =
    '{"actorId":null,"after":{"a":{"y":"é","z":null},"amount":"12.50","b":1},"at":"2026-11-27T09:00:00.000Z",' +
    '"before":null,"forId":null,"seq":3,"subjectId":"00000000-0000-4000-8000-000000000009",' +
    '"subjectKind":"requisition","type":"sent"}'
  expect(linkHash(BEFORE_FIRST, event(3))).toBe(createHash('sha256').update(`${BEFORE_FIRST}\n${said}`).digest('hex'))
  // A database gives keys back in an order of its own.
  const other = event(3, { after: { a: { y: 'é', z: null }, b: 1, amount: '12.50' } })
  expect(linkHash(BEFORE_FIRST, other)).toBe(linkHash(BEFORE_FIRST, event(3)))
})

describe('what does not fit is found, and the first of it named', () => {
  test('nothing, of a chain that is whole, whatever the order in which events came', () => {
    expect(check(whole)).toEqual({ links: 5, head: { number: 5, hash: at(4).link.hash }, fault: null })
    expect(check([])).toEqual({ links: 0, head: null, fault: null })
  })
  test('a changed event, in whatever of it', () => {
    const changes: Partial<ChainEvent>[] = [
      { after: { amount: '12.51', b: 1, a: { z: null, y: 'é' } } },
      { at: '2026-11-27T09:00:00.001Z' },
      { actorId: '00000000-0000-4000-8000-000000000001' },
      { forId: '00000000-0000-4000-8000-000000000001' },
      { type: 'approved' },
      { subjectKind: 'order' },
      { before: { state: 'draft' } },
    ]
    for (const change of changes) {
      const tampered = whole.map((l, i) => (i === 1 ? { ...l, event: event(5, change) } : l))
      expect(check(tampered).fault).toEqual({ code: 'event-changed', number: 2, seq: 5 })
    }
  })
  test('a removed event, a removed link, one added in between, two that changed places', () => {
    expect(check(whole.map((l, i) => (i === 2 ? { ...l, event: null } : l))).fault).toMatchObject({
      code: 'event-gone',
      number: 3,
    })
    expect(check(whole.filter((_, i) => i !== 2)).fault).toMatchObject({ code: 'link-missing', number: 3 })
    const added = { link: { ...at(2).link, seq: 6 }, event: event(6) }
    expect(check([at(0), at(1), added, ...whole.slice(2)]).fault).toMatchObject({ code: 'event-changed', number: 3 })
    const swapped = [
      at(0),
      { link: { ...at(1).link, seq: 4 }, event: third?.event ?? null },
      { link: { ...at(2).link, seq: 5 }, event: second?.event ?? null },
    ]
    expect(check(swapped).fault).toMatchObject({ code: 'event-changed', number: 2 })
  })
  test('an end that was cut off, or written anew, by a head that was kept outside alone', () => {
    const { number, hash } = at(4).link
    expect(check(whole, { number, hash }).fault).toBeNull()
    expect(check(whole.slice(0, 3)).fault).toBeNull()
    expect(check(whole.slice(0, 3), { number, hash }).fault).toMatchObject({ code: 'head-differs', number: 5 })
    const anew = chainOf([event(3), event(5, { type: 'rejected' }), event(4), event(9), event(10)])
    expect(check(anew).fault).toBeNull()
    expect(check(anew, { number: 2, hash: at(1).link.hash }).fault).toMatchObject({ code: 'head-differs', number: 2 })
  })
  test('an event that was put among old ones afterwards, with a link or without', () => {
    const many = Array.from({ length: 70 }, (_, i) => event(2 * (i + 1)))
    expect(check(chainOf([...many, event(139)])).fault).toBeNull()
    expect(check(chainOf([...many, event(7)])).fault).toEqual({ code: 'event-late', number: 71, seq: 7 })
    expect(check(chainOf(many), null, [7]).fault).toEqual({ code: 'event-unlinked', number: null, seq: 7 })
    // What may still be on its way is none.
    expect(check(chainOf(many), null, [139]).fault).toBeNull()
  })
})

test('a line of the export says all that proves it, and is read back', () => {
  const { link } = at(1)
  const line = writeLine(event(5), link, at(0).link.hash)
  expect(line.endsWith('\n')).toBe(true)
  expect(readLine(line)).toEqual({ link, event: event(5) })
  expect(readLine(writeLine(event(6), null, null))).toEqual({ link: null, event: event(6) })
  expect(readLine('{')).toBeNull()
  expect(readLine('{"number":1}')).toBeNull()
})
