import { describe, expect, test } from 'vitest'
import type { OwnField } from '#core/requisition/own-field'
import { sayOwnValue, sayOwnValues } from './own-field'
import { OUTWARD } from './ways'

const field = (type: OwnField['type'], name = 'Field'): OwnField => ({
  id: `${type} ${name}`,
  name,
  help: '',
  on: 'requisition',
  type,
  required: false,
  kinds: [],
  departmentIds: [],
  categoryIds: [],
  choices: [],
})
const names = { people: new Map([['p', 'Rosa Castell']]), jobs: new Map([['j', 'J-101 Pump-room overhaul']]) }

describe('what stands in an own field', () => {
  test.each([
    ['text', 'P4', 'P4'],
    ['choice', 'needed', 'needed'],
    ['number', '1234.5', '1,234.5'],
    ['number', 'many', 'many'],
    ['date', '2026-12-08', '8 December 2026'],
    ['date', 'soon', 'soon'],
    ['person', 'p', 'Rosa Castell'],
    ['person', 'x', 'somebody who is not known'],
    ['job', 'j', 'J-101 Pump-room overhaul'],
    ['job', 'x', 'a job that is not known'],
  ] as const)('%s %s is said as %s', (type, value, said) => {
    expect(sayOwnValue(field(type), value, names, OUTWARD)).toBe(said)
  })
  test('blank fields are left out, the others stand with their names in the order of the fields', () => {
    const fields = [field('text', 'A'), field('person', 'B'), field('text', 'C')]
    expect(sayOwnValues(fields, { 'text C': 'c', 'person B': 'p', 'text A': ' ', gone: 'x' }, names, OUTWARD)).toEqual([
      'B: Rosa Castell',
      'C: c',
    ])
  })
})
