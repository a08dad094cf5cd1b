import { expect, test } from 'vitest'
import type { FormChange, FormReason, RequestForm } from '#core/requisition/form'
import { sayAsked, sayChange, sayFormReason, sayReplay } from './request-form'

const form: RequestForm = {
  newSuppliers: 'propose',
  kinds: [{ code: 'w', name: 'works', help: '', series: 'P' }],
  ownFields: [
    {
      id: 'f',
      name: 'Colour',
      help: '',
      on: 'requisition',
      type: 'choice',
      required: false,
      kinds: [],
      departmentIds: [],
      categoryIds: [],
      choices: [],
    },
  ],
  rules: [
    {
      id: 'r',
      name: '',
      when: { from: null, kinds: [], departmentIds: [], categoryIds: [], withoutAgreement: false },
      asks: { what: 'justification' },
    },
  ],
}

test.each<[FormReason, string]>([
  [{ part: 'kinds', at: null, code: 'no-kinds' }, 'There has to be at least one kind of request.'],
  [
    { part: 'kinds', at: 0, code: 'series-taken', series: 'P' },
    'P begins the numbers of other documents; choose other letters for “works”.',
  ],
  [
    { part: 'kinds', at: 0, code: 'series-unreadable' },
    'The numbers of “works” have to begin with one to three capital letters.',
  ],
  [{ part: 'ownFields', at: 0, code: 'choices-few' }, '“Colour” needs at least two things to choose from.'],
  [{ part: 'ownFields', at: 0, code: 'name-missing' }, 'An own field needs a name.'],
  [{ part: 'ownFields', at: 0, code: 'name-twice', name: 'Colour' }, 'There are two of the name “Colour”.'],
  [{ part: 'rules', at: 0, code: 'name-missing' }, 'A rule needs a sentence that says why.'],
  [
    { part: 'rules', at: 0, code: 'unknown', what: 'department' },
    'A rule names a department that is not there any more.',
  ],
  [{ part: 'rules', at: 0, code: 'quotes-few' }, 'A rule has to ask for one to 9 quotes.'],
])('%j', (reason, sentence) => {
  expect(sayFormReason(reason, form)).toBe(sentence)
})

test.each<[FormChange, string]>([
  [{ part: 'newSuppliers', what: 'changed' }, 'New suppliers: another rule'],
  [{ part: 'rules', what: 'moved' }, 'The order of rules'],
  [{ part: 'kinds', what: 'added', name: 'works' }, 'Kind “works”: new'],
  [{ part: 'ownFields', what: 'gone', name: 'Colour' }, 'Own field “Colour”: no longer'],
  [{ part: 'rules', what: 'changed', name: ' ' }, 'Rule without a name: changed'],
])('%j', (change, line) => {
  expect(sayChange(change)).toBe(line)
})

test('what is asked for', () => {
  expect([
    sayAsked({ what: 'quotes', count: 1 }),
    sayAsked({ what: 'quotes', count: 3 }),
    sayAsked({ what: 'attachment', kind: 'other' }),
    sayAsked({ what: 'justification' }),
    sayAsked({ what: 'reading', text: 'By rail.' }),
  ]).toEqual(['one quote', 'three quotes', 'a file', 'a justification', 'reading “By rail.”'])
})

test.each([
  [0, 0, 0, ''],
  [75, 0, 0, 'would have held for none of the 75 requests sent last'],
  [75, 1, 0, 'would have held for 1 of the 75 requests sent last; it has what is needed'],
  [75, 1, 1, 'would have held for 1 of the 75 requests sent last; it lacks what is needed'],
  [75, 4, 0, 'would have held for 4 of the 75 requests sent last; all have what is needed'],
  [75, 4, 4, 'would have held for 4 of the 75 requests sent last; all lack what is needed'],
  [75, 4, 1, 'would have held for 4 of the 75 requests sent last; 1 lacks what is needed'],
])('of %i sent, %i asked and %i lacking', (sent, asked, lacking, said) => {
  expect(sayReplay({ asked, lacking }, sent)).toBe(said)
})
