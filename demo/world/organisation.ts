import { addDays, fiscalPeriod, periodsOf, type Day } from '#core/base/day'
import { money } from '#core/base/money'
import type { OrganisationDescription } from '../../server/settings/load-organisation'
import { idOf } from '../ids'
import { describeBudgets } from './budgets'
import { ACCOUNTS, CATEGORY_ROWS, ITEM_ROWS, SUPPLIER_ROWS, stepsOf } from './catalogue'
import { JOBS, KINDS } from './request-form'
import { DEPARTMENT_ROWS, describePeople, personId, SHIP_TOS } from './people'

const FISCAL_START = 4
const HOLIDAYS: [string, string][] = [
  ['2026-01-01', 'New Year'],
  ['2026-04-03', 'Good Friday'],
  ['2026-04-06', 'Easter Monday'],
  ['2026-05-04', 'May holiday'],
  ['2026-05-25', 'Spring holiday'],
  ['2026-08-31', 'Summer holiday'],
  ['2026-12-25', 'Christmas'],
  ['2026-12-28', 'Boxing Day, moved'],
  ['2027-01-01', 'New Year'],
  ['2027-03-26', 'Good Friday'],
  ['2027-03-29', 'Easter Monday'],
]

/** Hallamere Oceanarium as it stands on a day, before anybody asked for anything. */
export function describeHallamere(today: Day, passwordHash: string): OrganisationDescription {
  const { year } = fiscalPeriod(today, FISCAL_START)
  return {
    organisation: {
      name: 'Hallamere Oceanarium',
      address: 'Quay Gate 1, 24105 Hallamere',
      letterhead: 'Telephone 0100 40 100 · Trust register 4471',
      timeZone: 'Europe/London',
      baseCurrency: 'EUR',
      fiscalStartMonth: FISCAL_START,
      orderTolerancePercent: '5',
      orderToleranceAmount: '50',
      mailFrom: 'purchasing@hallamere.example',
      isDemo: 1,
    },
    shipTos: SHIP_TOS,
    departments: DEPARTMENT_ROWS,
    people: describePeople(today, passwordHash),
    absences: [
      {
        personId: personId('Mai Torvald'),
        from: addDays(today, -3),
        until: addDays(today, 9),
        substituteId: personId('Kaveh Dorani'),
        note: 'Seal conference',
      },
      {
        personId: personId('Desmond Hale'),
        from: addDays(today, -1),
        until: addDays(today, 12),
        substituteId: null,
        note: 'Holiday',
      },
    ],
    holidays: HOLIDAYS.map(([day, name]) => ({ day, name })),
    taxCodes: [
      { code: 'S', name: 'Standard', category: 'S', rate: '19' },
      { code: 'R', name: 'Reduced', category: 'S', rate: '7' },
      { code: 'Z', name: 'No tax', category: 'Z', rate: '0' },
    ],
    rates: [-400, -120, -60, -30, -7].flatMap((ago, i) => [
      { day: addDays(today, ago), currency: 'GBP', perBase: `0.8${54 + i}0` },
      { day: addDays(today, ago), currency: 'DKK', perBase: `7.46${10 + i}` },
    ]),
    periods: [year - 1, year, year + 1].flatMap((y) =>
      periodsOf(y, FISCAL_START).map((p) => ({
        year: y,
        ...p,
        // What is closed is told by the moment: a year is closed period by period, three weeks after each.
        closedAt: y < year ? new Date(`${addDays(p.untilDay, 21)}T12:00:00Z`) : null,
      })),
    ),
    accounts: ACCOUNTS,
    budgetLines: [year - 1, year, year + 1].flatMap(describeBudgets).map(({ department: _, ...l }) => l),
    suppliers: SUPPLIER_ROWS,
    categories: CATEGORY_ROWS,
    items: ITEM_ROWS.map(({ category: _, ...i }) => ({ ...i, prices: stepsOf({ category: _, ...i }, today) })),
    kinds: KINDS,
    jobs: JOBS,
    policy: {
      id: idOf('policy', 'first'),
      name: 'Policy of Hallamere Oceanarium',
      inForceAt: new Date(`${addDays(today, -500)}T00:00:00Z`),
      ending: 'fallback',
      ownLimitDays: 7,
      byMail: { upTo: money('5000.00 EUR') },
      fallbackId: personId('Marguerite Oduya'),
      rules: [
        {
          name: 'Within the requester’s own limit and inside the budget, no manager is asked',
          conditions: [{ on: 'over budget', is: false }],
          sparesManagers: true,
          steps: [],
        },
        {
          name: 'Every request climbs the chain of managers up to the first whose limit covers it',
          conditions: [],
          steps: [{ rank: 10, who: { by: 'chain', until: 'covered' } }],
        },
        {
          name: 'If a budget would be passed, its budget holder decides too',
          conditions: [{ on: 'over budget', is: true }],
          steps: [{ rank: 20, who: { by: 'budget holders' } }],
        },
        {
          name: 'An order that its buyer may not issue alone climbs their chain of managers, by what each may order',
          documents: 'orders',
          conditions: [],
          steps: [{ rank: 10, who: { by: 'chain', until: 'covered' } }],
        },
        {
          name: 'From 25,000 all three trustees, side by side',
          conditions: [{ on: 'amount', from: money('25000.00 EUR') }],
          steps: [
            {
              rank: 30,
              who: {
                by: 'group',
                name: 'the trustees',
                mode: 'all',
                members: ['Aldous Penhale', 'Farida Nwosu', 'Tobias Lund'].map(personId),
              },
            },
          ],
        },
      ],
    },
  }
}
