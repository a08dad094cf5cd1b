import { addDays, type Day } from '#core/base/day'
import type { Role } from '#core/people/rights'
import { idOf } from '../ids'

export const SHIP_TOS = [
  { name: 'Pump Hall, Quay Gate', street: 'Quay Gate 3', postcode: '24105', town: 'Hallamere', country: 'Hallamere' },
  { name: 'Goods Yard', street: 'Harbour Road 11', postcode: '24105', town: 'Hallamere', country: 'Hallamere' },
  {
    name: 'Rescue Centre, North Mole',
    street: 'North Mole 1',
    postcode: '24107',
    town: 'Hallamere',
    country: 'Hallamere',
  },
  { name: 'Boat House, Berth 4', street: 'Old Basin 4', postcode: '24107', town: 'Hallamere', country: 'Hallamere' },
  {
    name: 'Exhibits Workshop, Hall C',
    street: 'Quay Gate 9',
    postcode: '24105',
    town: 'Hallamere',
    country: 'Hallamere',
  },
].map((s) => ({ id: idOf('ship-to', s.name), ...s, country: 'Hallamere Coast' }))

const DEPARTMENTS: [name: string, costCentre: string, reclaimable: string, usual: string, partOf?: string][] = [
  ['Water Systems', '4100', '100', 'Pump Hall, Quay Gate'],
  ['Animal Care', '4200', '60', 'Goods Yard'],
  ['Exhibits Workshop', '4300', '100', 'Exhibits Workshop, Hall C'],
  ['Rescue Centre', '4400', '0', 'Rescue Centre, North Mole', 'Animal Care'],
  ['Research Boat', '4500', '100', 'Boat House, Berth 4'],
  ['Purchasing and Finance', '4900', '100', 'Goods Yard'],
]
export const DEPARTMENT_ROWS = DEPARTMENTS.map(([name, costCentre, reclaimable, usual, partOf]) => ({
  id: idOf('department', name),
  name,
  costCentre,
  reclaimable,
  usualShipToId: idOf('ship-to', usual),
  parentId: partOf === undefined ? null : idOf('department', partOf),
}))

interface Described {
  name: string
  jobTitle: string
  department: string
  manager: string | null
  own?: string
  deciding?: string
  ordering?: string
  roles?: readonly Role[]
  alsoFor?: readonly string[]
  leftDaysAgo?: number
  note?: string
}

const PEOPLE: Described[] = [
  {
    name: 'Owen Marsh',
    jobTitle: 'Technician',
    department: 'Water Systems',
    manager: 'Ines Adeyemi',
    own: '250',
    note: 'Raise a request: up to 250 passes at once, more goes to his manager.',
  },
  {
    name: 'Ines Adeyemi',
    jobTitle: 'Shift supervisor',
    department: 'Water Systems',
    manager: 'Tomas Brandt',
    own: '400',
    deciding: '1000',
    note: 'Decide on what waits: she may approve up to 1,000.',
  },
  {
    name: 'Tomas Brandt',
    jobTitle: 'Head of Water Systems',
    department: 'Water Systems',
    manager: 'Marguerite Oduya',
    own: '1000',
    deciding: '5000',
    note: 'Decide up to 5,000, and see his budgets to the last entry.',
  },
  {
    name: 'Leonie Farrow',
    jobTitle: 'Buyer',
    department: 'Purchasing and Finance',
    manager: 'Harriet Voss',
    own: '250',
    ordering: '3000',
    roles: ['buyer'],
    note: 'Put approved lines on trays and issue orders up to 3,000.',
  },
  {
    name: 'Harriet Voss',
    jobTitle: 'Head of purchasing',
    department: 'Purchasing and Finance',
    manager: 'Marguerite Oduya',
    own: '1000',
    deciding: '5000',
    ordering: '25000',
    roles: ['buyer', 'administrator'],
    note: 'Issue orders up to 25,000, and say when others are away.',
  },
  {
    name: 'Priya Lindqvist',
    jobTitle: 'Laboratory',
    department: 'Animal Care',
    manager: 'Mai Torvald',
    own: '400',
    alsoFor: ['Rescue Centre'],
    note: 'Her manager is away; a substitute decides for her.',
  },
  {
    name: 'Kaveh Dorani',
    jobTitle: 'Head of Animal Care',
    department: 'Animal Care',
    manager: 'Marguerite Oduya',
    own: '1000',
    deciding: '5000',
    note: 'Substitute of Mai Torvald, and budget holder of Animal Care.',
  },
  {
    name: 'Jonas Abara',
    jobTitle: 'Exhibit builder',
    department: 'Exhibits Workshop',
    manager: 'Anselm Kirwan',
    own: '150',
    note: 'His manager has left; see who decides instead.',
  },
  {
    name: 'Bryn Tolliver',
    jobTitle: 'Diver',
    department: 'Rescue Centre',
    manager: 'Desmond Hale',
    own: '100',
    note: 'His manager is away and nobody stands in: the route climbs on.',
  },
  {
    name: 'Sorrel Quist',
    jobTitle: 'Skipper',
    department: 'Research Boat',
    manager: 'Nadia Wexcombe',
    own: '250',
    note: 'Buys abroad: rope in Danish kroner, instruments in pounds.',
  },
  {
    name: 'Nadia Wexcombe',
    jobTitle: 'Head of operations',
    department: 'Rescue Centre',
    manager: 'Marguerite Oduya',
    own: '1000',
    deciding: '5000',
    alsoFor: ['Exhibits Workshop', 'Research Boat'],
    note: 'Decides for the workshop, the boat and the rescue centre.',
  },
  {
    name: 'Marguerite Oduya',
    jobTitle: 'Director',
    department: 'Purchasing and Finance',
    manager: 'Aldous Penhale',
    own: '5000',
    deciding: '25000',
    note: 'Decides up to 25,000, and where nobody else can.',
  },
  {
    name: 'Greta Molin',
    jobTitle: 'Finance',
    department: 'Purchasing and Finance',
    manager: 'Marguerite Oduya',
    own: '250',
    roles: ['finance'],
    note: 'Sees every document and every budget.',
  },
  {
    name: 'Wes Okafor',
    jobTitle: 'Goods yard',
    department: 'Purchasing and Finance',
    manager: 'Harriet Voss',
    own: '100',
    roles: ['receiver'],
  },
  { name: 'Rosa Castell', jobTitle: 'Technician', department: 'Water Systems', manager: 'Ines Adeyemi', own: '250' },
  {
    name: 'Mai Torvald',
    jobTitle: 'Veterinary lead',
    department: 'Animal Care',
    manager: 'Kaveh Dorani',
    own: '400',
    deciding: '1500',
    alsoFor: ['Rescue Centre'],
  },
  {
    name: 'Desmond Hale',
    jobTitle: 'Dive officer',
    department: 'Rescue Centre',
    manager: 'Nadia Wexcombe',
    own: '250',
    deciding: '1000',
  },
  {
    name: 'Anselm Kirwan',
    jobTitle: 'Head of the workshop',
    department: 'Exhibits Workshop',
    manager: 'Nadia Wexcombe',
    own: '1000',
    deciding: '3000',
    leftDaysAgo: 16,
  },
  {
    name: 'Aldous Penhale',
    jobTitle: 'Trustee',
    department: 'Purchasing and Finance',
    manager: null,
    deciding: '1000000',
  },
  {
    name: 'Farida Nwosu',
    jobTitle: 'Trustee',
    department: 'Purchasing and Finance',
    manager: null,
    deciding: '1000000',
  },
  {
    name: 'Tobias Lund',
    jobTitle: 'Trustee',
    department: 'Purchasing and Finance',
    manager: null,
    deciding: '1000000',
  },
  {
    name: 'Signe Aalto',
    jobTitle: 'Auditor',
    department: 'Purchasing and Finance',
    manager: null,
    roles: ['auditor'],
    note: 'Sees everything and changes nothing.',
  },
]

/** A person's id by name; a name that is not in the cast is a mistake in the demo. */
export function personId(name: string): string {
  if (!PEOPLE.some((p) => p.name === name)) throw new Error(`nobody is called ${name}`)
  return idOf('person', name)
}

function emailOf(name: string): string {
  return `${name.toLowerCase().replace(/ /g, '.')}@hallamere.example`
}

/** The cast, with one password for all; whoever left did so relative to `today`. */
export function describePeople(today: Day, passwordHash: string) {
  return PEOPLE.map((p, i) => ({
    id: idOf('person', p.name),
    name: p.name,
    email: emailOf(p.name),
    jobTitle: p.jobTitle,
    passwordHash,
    departmentId: idOf('department', p.department),
    managerId: p.manager === null ? null : idOf('person', p.manager),
    ownLimit: p.own ?? null,
    decidingLimit: p.deciding ?? null,
    orderingLimit: p.ordering ?? null,
    leftOn: p.leftDaysAgo === undefined ? null : addDays(today, -p.leftDaysAgo),
    demoNote: p.note ?? null,
    demoRank: String(i),
    alsoFor: (p.alsoFor ?? []).map((d) => idOf('department', d)),
    roles: p.roles ?? [],
  }))
}
