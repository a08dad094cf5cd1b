import { describe, expect, test } from 'vitest'
import { checkOwnFields, isAsked, OWN_FIELD_TYPES, type OwnField, type OwnFieldType } from './own-field'

const field = (change: Partial<OwnField>): OwnField => ({
  id: 'f',
  name: 'Field',
  help: '',
  on: 'requisition',
  type: 'text',
  required: false,
  kinds: [],
  departmentIds: [],
  categoryIds: [],
  choices: [],
  ...change,
})
const facts = { jobs: new Map([['3f2a6f0e-1111-4111-8111-000000000001', {}]]) }

describe('an own field is asked for', () => {
  const on = { kind: 'goods', departmentId: 'ws', categoryId: 'pumps' }
  test.each<[string, Partial<OwnField>, boolean]>([
    ['everywhere when nothing is named', {}, true],
    ['on its kinds alone', { kinds: ['travel'] }, false],
    ['on one of several kinds', { kinds: ['travel', 'goods'] }, true],
    ['in its departments alone', { departmentIds: ['ac'] }, false],
    ['in one of several departments', { departmentIds: ['ac', 'ws'] }, true],
    ['on lines of its categories', { on: 'line', categoryIds: ['pumps'] }, true],
    ['and on no others', { on: 'line', categoryIds: ['feed'] }, false],
    ['on a requisition whatever its categories', { categoryIds: ['feed'] }, true],
    ['only where all that is named fits', { kinds: ['goods'], departmentIds: ['ac'] }, false],
  ])('%s', (_, change, asked) => {
    expect(isAsked(field(change), on)).toBe(asked)
  })
  test('not where the department is not chosen yet and it names one', () => {
    expect(isAsked(field({ departmentIds: ['ws'] }), { ...on, departmentId: null })).toBe(false)
  })
})

describe('what stands in an own field', () => {
  test.each<[OwnFieldType, string, boolean]>([
    ['text', 'P4', true],
    ['text', 'x'.repeat(1001), false],
    ['number', '12.5', true],
    ['number', '-3', true],
    ['number', 'twelve', false],
    ['number', '1,5', false],
    ['number', '1e3', false],
    ['date', '2026-11-25', true],
    ['date', '2026-02-30', false],
    ['date', 'tomorrow', false],
    ['choice', 'needed', true],
    ['choice', 'Needed', false],
    ['person', '3f2a6f0e-1111-4111-8111-000000000001', true],
    ['person', 'Owen', false],
    ['job', '3f2a6f0e-1111-4111-8111-000000000001', true],
    ['job', '3f2a6f0e-1111-4111-8111-000000000002', false],
  ])('%s: %s', (type, value, fits) => {
    expect(checkOwnFields([field({ type, choices: ['needed', 'not needed'] })], { f: value }, facts)).toEqual(
      fits ? [] : [{ field: field({ type, choices: ['needed', 'not needed'] }), wrong: 'unreadable' }],
    )
  })
  test('blank is missing only where it is required, whatever the type', () => {
    for (const type of Object.keys(OWN_FIELD_TYPES) as OwnFieldType[]) {
      expect(checkOwnFields([field({ type })], { f: '  ' }, facts)).toEqual([])
      expect(checkOwnFields([field({ type, required: true })], {}, facts).map((w) => w.wrong)).toEqual(['missing'])
    }
  })
})
