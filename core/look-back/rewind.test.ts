import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { Values } from '#core/lists/list'
import { rewind, type EntryWritten } from './rewind'

test('property: whatever was written in whatever order, every earlier moment comes back', () => {
  const write = fc.record({
    id: fc.constantFrom('a', 'b', 'c'),
    to: fc.option(fc.record({ limit: fc.constantFrom('', '100', '2000') }), { nil: null }),
  })
  fc.assert(
    fc.property(fc.array(write, { maxLength: 20 }), (writes) => {
      const states: Map<string, Values>[] = [new Map()]
      const log: EntryWritten[] = []
      for (const { id, to } of writes) {
        const next = new Map(states.at(-1))
        log.unshift({ id, before: next.get(id) ?? null, after: to })
        if (to === null) next.delete(id)
        else next.set(id, to)
        states.push(next)
      }
      const now = states.at(-1) ?? new Map<string, Values>()
      states.forEach((then, at) => {
        expect(rewind(now, log.slice(0, writes.length - at))).toEqual(then)
      })
    }),
  )
})
