import { describe, expect, test } from 'vitest'
import { addressesToTell, checkBank, plainBank, sayBankNumber } from './bank'

const at = (number: string, bank = '') => ({ holder: 'Corrigan Pumps', number, bank })

describe('bank details', () => {
  // The example IBANs of the IBAN registry (SWIFT, ISO 13616), from memory.
  test.each([
    'GB29 NWBK 6016 1331 9268 19',
    'DE89 3704 0044 0532 0130 00',
    'DK50 0040 0440 1162 43',
    'FR14 2004 1010 0505 0001 3M02 606',
    'NL91 ABNA 0417 1643 00',
    'NO93 8601 1117 947',
    'BE68 5390 0754 7034',
    'SE45 5000 0000 0583 9825 7466',
    'MT84 MALT 0110 0001 2345 MTLC AST0 01S',
  ])('the registry’s example is sound, and with one sign changed it is not: %s', (iban) => {
    expect(checkBank(at(iban))).toEqual([])
    expect(checkBank(at(iban.toLowerCase()))).toEqual([])
    const last = iban.at(-1) === '1' ? '2' : '1'
    expect(checkBank(at(iban.slice(0, -1) + last))).toEqual(['iban-wrong'])
    expect(checkBank(at(iban.slice(0, -1)))).toEqual(['iban-wrong'])
  })
  test('a BIC has 8 or 11 signs (ISO 9362)', () => {
    expect(checkBank(at('DE89370400440532013000', 'DEUTDEFF'))).toEqual([])
    expect(checkBank(at('DE89370400440532013000', 'DEUTDEFF500'))).toEqual([])
    expect(checkBank(at('DE89370400440532013000', 'DEUT'))).toEqual(['bic-wrong'])
  })
  test('a number that is no IBAN needs its bank, and nothing may be left out', () => {
    expect(checkBank(at('31926819'))).toEqual(['bank-missing'])
    expect(checkBank(at('31926819', '601613'))).toEqual([])
    expect(checkBank({ holder: ' ', number: '', bank: '' })).toEqual(['holder-missing', 'number-missing'])
  })
  test('an IBAN is kept without blanks and read in fours', () => {
    expect(plainBank(at(' gb29 nwbk 6016 1331 9268 19 ', 'nwbk gb 2l')).number).toBe('GB29NWBK60161331926819')
    expect(plainBank(at('x', 'nwbk gb 2l')).bank).toBe('NWBKGB2L')
    expect(sayBankNumber('GB29NWBK60161331926819')).toBe('GB29 NWBK 6016 1331 9268 19')
    expect(sayBankNumber('31926819')).toBe('31926819')
  })
  test('the address of before hears too, for ninety days after it was changed', () => {
    const now = new Date('2026-11-27T10:00:00Z')
    const of = (changed: string | null) => ({
      email: 'new@x.example',
      emailBefore: 'old@x.example',
      emailChangedAt: changed === null ? null : new Date(changed),
    })
    expect(addressesToTell(of('2026-11-20T10:00:00Z'), now)).toEqual(['old@x.example', 'new@x.example'])
    expect(addressesToTell(of('2026-08-29T10:00:00Z'), now)).toEqual(['old@x.example', 'new@x.example'])
    expect(addressesToTell(of('2026-08-29T09:59:59Z'), now)).toEqual(['new@x.example'])
    expect(addressesToTell(of(null), now)).toEqual(['new@x.example'])
    expect(addressesToTell({ email: null, emailBefore: null, emailChangedAt: now }, now)).toEqual([])
  })
})
