import { describe, expect, test } from 'vitest'
import { likeness, whyAlike } from './alike'
import { warningsOf, type ItemFacts, type SupplierFacts } from './warning'

const s = (name: string, taxNumber: string | null = null, email: string | null = null) => ({ name, taxNumber, email })

describe('two suppliers may be one', () => {
  test.each([
    ['the same number written otherwise', s('A', 'HL 740-0137'), s('B', 'hl7400137'), ['same tax number']],
    ['a number too short to tell', s('A', '12'), s('B', '12'), []],
    [
      'the same mail domain',
      s('A', null, 'x@corrigan.example'),
      s('B', null, 'Orders@CORRIGAN.example'),
      ['same mail domain'],
    ],
    ['a mailbox that anybody may have', s('A', null, 'x@gmail.com'), s('B', null, 'y@gmail.com'), []],
    [
      'the same name with another legal form',
      s('Corrigan Pumps Ltd.'),
      s('CORRIGAN PUMPS GmbH & Co. KG'),
      ['same name'],
    ],
    ['accents', s('Ostervig Net and Rope'), s('Østervig Net & Rope'), ['same name']],
    ['a letter dropped', s('Corigan Pumps'), s('Corrigan Pumps'), ['like name']],
    ['the beginning of a name', s('Brackwater'), s('Brackwater Salts'), ['like name']],
    ['another firm of the trade', s('Northmole Water'), s('Brackwater Salts'), []],
    [
      'everything at once',
      s('Corrigan Pumps', 'HL7400137', 'a@corrigan.example'),
      s('Corrigan Pumps', 'HL7400137', 'b@corrigan.example'),
      ['same tax number', 'same mail domain', 'same name'],
    ],
    ['nothing known', s(''), s(''), []],
  ])('%s', (_, a, b, why) => {
    expect(whyAlike(a, b)).toEqual(why)
    if (why[0] !== 'like name') expect(whyAlike(b, a)).toEqual(why)
  })
  // The documentation of PostgreSQL's pg_trgm, F.35.1: "word" has "  w", " wo", "wor", "ord", "rd ".
  test('likeness counts groups of three signs', () => {
    expect(likeness('word', 'word')).toBe(1)
    expect(likeness('word', 'two words')).toBeCloseTo(0.363636, 6)
    expect(likeness('', '')).toBe(0)
  })
})

test('the warnings of a line are those of its item, then of its supplier', () => {
  const item = (warning: string | null): ItemFacts => ({
    id: 'i',
    agreed: false,
    leadDays: 1,
    warning,
    warningMode: 'must be read',
    retired: false,
    successor: null,
  })
  const supplier: SupplierFacts = {
    id: 's',
    name: 'S',
    standing: 'active',
    leadDays: 1,
    warning: 'by lorry',
    warningMode: 'informs',
  }
  const facts = (warning: string | null) => ({
    items: new Map([['i', item(warning)]]),
    suppliers: new Map([['s', supplier]]),
  })
  expect(warningsOf({ itemId: 'i', supplierId: 's' }, facts('poison'))).toEqual([
    { id: 'i', text: 'poison', mode: 'must be read' },
    { id: 's', text: 'by lorry', mode: 'informs' },
  ])
  expect(warningsOf({ itemId: 'i', supplierId: null }, facts(null))).toEqual([])
  expect(warningsOf({ itemId: null, supplierId: 'unknown' }, facts('poison'))).toEqual([])
  // What is retired says so first, whatever else is written.
  const gone = { ...item('poison'), retired: true, successor: 'Lamp 80 W (L-80)' }
  expect(
    warningsOf({ itemId: 'i', supplierId: null }, { items: new Map([['i', gone]]), suppliers: new Map() }),
  ).toMatchObject([
    { text: null, mode: 'informs', successor: 'Lamp 80 W (L-80)' },
    { text: 'poison', mode: 'must be read' },
  ])
})
