import { expect, test } from 'vitest'
import { readTypedPayer } from './typed-payer'

const payer = (id: string, code: string, name: string, project: string | null = null) => ({
  id,
  code,
  name,
  account: code.split('-')[1] ?? '',
  project,
})
const PAYERS = [
  payer('f', '4100-610', 'Filters and pumps'),
  payer('s', '4100-620', 'Salt'),
  payer('l', '4100-630', 'Lamps'),
  payer('p', '4100-640-P7', 'Pump room', 'P7'),
]
const read = (text: string, mark: '.' | ',' = '.') => {
  const found = readTypedPayer(text, PAYERS, mark)
  return found === null ? null : [found.splitMethod, ...found.codings.map((c) => [c.budgetLineId, c.value])]
}

test.each([
  ['4100-610', ['percent', ['f', null]]],
  ['620', ['percent', ['s', null]]],
  ['SALT', ['percent', ['s', null]]],
  ['lamp', ['percent', ['l', null]]],
  ['p7', ['percent', ['p', null]]],
  ['pump', null], // Two are called so.
  ['41', null],
  ['ropes', null],
  ['', null],
])('one is meant by its code or name: %s', (text, expected) => {
  expect(read(text)).toEqual(expected)
})

test.each<[string, ReturnType<typeof read>]>([
  ['610 60, 620 40', ['percent', ['f', '60'], ['s', '40']]],
  ['filters 60 % + salt 40%', ['percent', ['f', '60'], ['s', '40']]],
  ['60% filters; 40% salt', ['percent', ['f', '60'], ['s', '40']]],
  ['610 60 and 620', ['percent', ['f', '60'], ['s', '40']]],
  ['610 33.3, 620 33.3, lamps', ['percent', ['f', '33.3'], ['s', '33.3'], ['l', '33.4']]],
  ['610, 620, lamps', ['share', ['f', null], ['s', null], ['l', null]]],
  ['Filters and pumps 50, salt', ['percent', ['f', '50'], ['s', '50']]],
  ['610 60, 620 30', null],
  ['610 60, 620 50', null],
  ['610, 620 40', null],
  ['610 100, 620', null],
  ['610 60, 610 40', null],
  ['610 60, ropes 40', null],
])('several with their parts: %s', (text, expected) => {
  expect(read(text)).toEqual(expected)
})

test('figures are read as the person writes them', () => {
  expect(read('610 33,3; 620', ',')).toEqual(['percent', ['f', '33.3'], ['s', '66.7']])
})
