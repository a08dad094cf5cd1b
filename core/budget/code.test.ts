import { describe, expect, test } from 'vitest'
import { matchCode, type CodedBudgetLine } from './code'

const line = (code: string): CodedBudgetLine => {
  const [, account = '', project] = code.split('-')
  return { id: code, code, account, project: project ?? null }
}
const LINES = ['4300-630', '4300-632', '4300-632-J103', '4300-634', '4300-634-J103', '4300-640-J98'].map(line)
const found = (typed: string, category: string | null = null) => matchCode(typed, LINES, category).map((l) => l.code)

describe('a typed account code', () => {
  test.each([
    ['4300-632', ['4300-632', '4300-632-J103']],
    ['632', ['4300-632', '4300-632-J103']],
    ['4300-63', ['4300-630', '4300-632', '4300-632-J103', '4300-634', '4300-634-J103']],
    ['63', ['4300-630', '4300-632', '4300-632-J103', '4300-634', '4300-634-J103']],
    ['632-j1', ['4300-632-J103']],
    ['4300 632 J103', ['4300-632-J103']],
    ['4300.634', ['4300-634', '4300-634-J103']],
    ['9', []],
    ['pumps', []],
    ['', []],
    ['-', []],
    ['632-4300', []],
  ])('%s', (typed, codes) => {
    expect(found(typed)).toEqual(codes)
  })
  test('a project alone, with the account of the line’s category, gives the full code first', () => {
    expect(found('J103', '634')).toEqual(['4300-634-J103', '4300-632-J103'])
    expect(found('j103', '632')[0]).toBe('4300-632-J103')
    expect(found('J103')).toEqual(['4300-632-J103', '4300-634-J103'])
    expect(found('J10')).toEqual(['4300-632-J103', '4300-634-J103'])
  })
})
