import { expect, test } from 'vitest'
import type { SourceGroup, SourceLine } from '#shared/contract/regulars'
import { keepMarks, keysOf } from './marked-lines'

const line = (description: string, quantity = '1') => ({ description, quantity }) as SourceLine
const group = (id: string, ...lines: SourceLine[]): SourceGroup => ({ id, name: id, note: '', lines })

test('a mark stays with its line when other words leave fewer lines, and goes with a line that went', () => {
  const all = keysOf([group('a', line('hose'), line('bag'), line('seal')), group('b', line('bag'))])
  const marked = new Set([all[0]?.[1] ?? '', all[0]?.[2] ?? ''])
  const fewer = keysOf([group('a', line('bag')), group('b', line('bag'))])
  expect([...keepMarks(marked, fewer)]).toEqual([fewer[0]?.[0]])
  expect(keepMarks(marked, all)).toEqual(marked)
})

test('equal lines of one group have a mark each, and the same line of another quantity is another', () => {
  const keys = keysOf([group('a', line('bag'), line('bag'), line('bag', '2'))]).flat()
  expect(new Set(keys).size).toBe(3)
  expect(keepMarks(new Set([keys[1] ?? '']), [keys]).size).toBe(1)
})
