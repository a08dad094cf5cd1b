import { money } from '#core/base/money'
import type { OwnField } from '#core/requisition/own-field'
import type { RequestRule } from '#core/requisition/rules'
import { idOf } from '../ids'

/** The kinds of requests at Hallamere; services and travel have numbers of their own. */
export const KINDS = [
  {
    code: 'goods',
    name: 'goods',
    help: 'Things that are delivered: from the catalogue, or described in your words.',
    series: 'R',
    position: 0,
  },
  {
    code: 'service',
    name: 'a service',
    help: 'Work that somebody comes to do, or does elsewhere: repairs, inspections, transport.',
    series: 'S',
    position: 1,
  },
  {
    code: 'travel',
    name: 'a journey',
    help: 'Tickets and lodging for a journey on the organisation’s business.',
    series: 'T',
    position: 2,
  },
]

export const JOBS = [
  { number: 'J-101', name: 'Pump-room overhaul', department: 'Water Systems', projectCode: null },
  { number: 'J-102', name: 'Filter bank 3 overhaul', department: 'Water Systems', projectCode: null },
  { number: 'J-103', name: 'New jellyfish tank', department: 'Exhibits Workshop', projectCode: 'J103' },
  { number: 'J-104', name: 'Outdoor pens, spring', department: 'Rescue Centre', projectCode: null },
  { number: 'J-105', name: 'Spring refit of the boat', department: 'Research Boat', projectCode: null },
  { number: 'J-098', name: 'Touch pool, new rim', department: 'Exhibits Workshop', projectCode: null, isOpen: false },
].map(({ department, ...j }) => ({
  isOpen: true,
  ...j,
  id: idOf('job', j.number),
  departmentId: idOf('department', department),
}))

const field = (name: string, f: Partial<OwnField> & Pick<OwnField, 'on' | 'type'>): OwnField => ({
  id: idOf('own field', name),
  name,
  help: '',
  required: false,
  kinds: [],
  departmentIds: [],
  categoryIds: [],
  choices: [],
  ...f,
})

export const OWN_FIELDS: readonly OwnField[] = [
  field('Who travels', {
    on: 'requisition',
    type: 'person',
    required: true,
    kinds: ['travel'],
    help: 'Whoever goes; the ticket is in this name.',
  }),
  field('Comes back on', {
    on: 'requisition',
    type: 'date',
    required: true,
    kinds: ['travel'],
    help: 'The day of the return.',
  }),
  field('Funded by', {
    on: 'requisition',
    type: 'choice',
    choices: ['own budget', 'Friends of Hallamere', 'Harbour Fund'],
    help: 'Grants are told apart in the yearly report.',
  }),
  field('Hours expected', {
    on: 'requisition',
    type: 'number',
    kinds: ['service'],
    help: 'How long the work will take, as far as you know.',
  }),
  field('For which pump', {
    on: 'line',
    type: 'text',
    categoryIds: [idOf('category', 'Pump parts')],
    help: 'The number on its plate, such as P4.',
  }),
  field('Batch certificate', {
    on: 'line',
    type: 'choice',
    choices: ['needed', 'not needed'],
    required: true,
    categoryIds: [idOf('category', 'Frozen feed')],
    help: 'Feed for the quarantine needs one.',
  }),
]

const when = (w: Partial<RequestRule['when']>): RequestRule['when'] => ({
  from: null,
  kinds: [],
  departmentIds: [],
  categoryIds: [],
  withoutAgreement: false,
  ...w,
})

/** What purchasing asks for since this month. */
export const RULES: readonly RequestRule[] = [
  {
    id: idOf('rule', 'two quotes'),
    name: 'from 1,000 without an agreement two quotes are asked for',
    when: when({ from: money('1000.00 EUR'), withoutAgreement: true }),
    asks: { what: 'quotes', count: 2 },
  },
  {
    id: idOf('rule', 'three quotes'),
    name: 'from 5,000 without an agreement three quotes are asked for',
    when: when({ from: money('5000.00 EUR'), withoutAgreement: true }),
    asks: { what: 'quotes', count: 3 },
  },
  {
    id: idOf('rule', 'instruments'),
    name: 'instruments from 500 say what the ones we have cannot do',
    when: when({ from: money('500.00 EUR'), categoryIds: [idOf('category', 'Instruments')] }),
    asks: { what: 'justification' },
  },
  {
    id: idOf('rule', 'service'),
    name: 'a service from 800 comes with a specification of the work',
    when: when({ from: money('800.00 EUR'), kinds: ['service'] }),
    asks: { what: 'attachment', kind: 'specification' },
  },
  {
    id: idOf('rule', 'travel'),
    name: 'travel rules are read first',
    when: when({ kinds: ['travel'] }),
    asks: { what: 'reading', text: 'Journeys under six hours go by rail; whoever flies says why.' },
  },
]
