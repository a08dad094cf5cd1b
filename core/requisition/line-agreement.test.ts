import { describe, expect, test } from 'vitest'
import { holds } from '#core/approval/policy'
import { money } from '#core/base/money'
import { BLANK_DRAFT, BLANK_LINE } from './draft'
import { agreementOfLine, hasAgreement, type AgreementFacts } from './line-agreement'

const parts: AgreementFacts = {
  ...{ id: 'a', number: 'A-26-00001', name: 'Pumps', supplierId: 'corrigan', currency: 'EUR' },
  ...{ startsOn: '2026-01-01', endsOn: '2026-12-31', fixes: 'items', itemIds: ['seal'] },
  ...{ departmentIds: ['operations'], isClosed: false },
  of: {
    ...{ ceiling: money('1000.00 EUR'), drawn: money('0.00 EUR'), reserved: money('0.00 EUR') },
    ...{ warnPercent: null, endsOn: '2026-12-31', warnDays: 30 },
  },
}
const all: AgreementFacts = { ...parts, id: 'b', number: 'A-26-00002', fixes: 'sum', itemIds: [], departmentIds: [] }
const facts = {
  ...{ today: '2026-11-01', agreements: [all, parts], branch: ['water', 'operations'] },
  items: new Map([['lamp', { agreed: true }]]),
}
const line = (itemId: string | null, supplierId: string | null = 'corrigan') => ({
  ...{ ...BLANK_LINE, id: 'l', itemId, supplierId, currency: 'EUR' },
})

describe('the agreement on which a line draws', () => {
  test('is one that fixes its item before one on a sum, for whoever may draw on it', () => {
    expect(agreementOfLine(line('seal'), BLANK_DRAFT, facts)).toBe(parts)
    expect(agreementOfLine(line('valve'), BLANK_DRAFT, facts)).toBe(all)
    expect(agreementOfLine(line('seal'), BLANK_DRAFT, { ...facts, branch: ['shop'] })).toBe(all)
    expect(agreementOfLine(line('seal', null), BLANK_DRAFT, facts)).toBeNull()
  })
  test('is that of the accounting date, where one is said', () => {
    const later = { ...BLANK_DRAFT, accountingDate: '2027-01-02' }
    expect(agreementOfLine(line('seal'), later, facts)).toBeNull()
    expect(hasAgreement(line('seal'), later, facts)).toBe(false)
  })
  test('of one that is kept elsewhere the catalogue says so', () => {
    expect(hasAgreement(line('lamp', 'other'), BLANK_DRAFT, facts)).toBe(true)
    expect(hasAgreement(line('seal', 'other'), BLANK_DRAFT, facts)).toBe(false)
  })
})

test('a rule of the policy looks at it: any coding that an agreement covers, or that none does, meets it', () => {
  const coding = { budgetLineId: 'b', account: '610', category: null, supplier: 'known' as const, currency: 'EUR' }
  const subject = (...covers: (boolean | undefined)[]) =>
    ({
      codings: covers.map((c) => ({ ...coding, holderId: null, ...(c === undefined ? {} : { hasAgreement: c }) })),
    }) as unknown as Parameters<typeof holds>[1]
  expect(holds({ on: 'agreement', is: true }, subject(false, true))).toBe(true)
  expect(holds({ on: 'agreement', is: false }, subject(false, true))).toBe(true)
  expect(holds({ on: 'agreement', is: false }, subject(true))).toBe(false)
  // What was sent before it was looked at is under none.
  expect(holds({ on: 'agreement', is: false }, subject(undefined))).toBe(true)
})
