import { describe, expect, test } from 'vitest'
import { LANGUAGE_CODES } from '#core/supplier/language'
import { UNITS } from '#core/base/unit'
import { ORDER_PAPER } from './order-paper'
import { OUTWARD_IN } from './ways'

const changes = (of: (typeof ORDER_PAPER)['de']) => [
  of.difference({ what: 'quantity', line: 1, description: 'Seal', unit: 'H87', was: '10', is: '3' }),
  of.difference({ what: 'quantity', line: 1, description: 'Seal', unit: 'H87', was: '10', is: '0' }),
  of.difference({ what: 'price', line: 1, description: 'Seal', currency: 'EUR', was: '1234.5', is: '12' }),
  of.difference({ what: 'day', line: 1, description: 'Seal', was: '2026-12-08', is: '2027-01-11' }),
  of.difference({ what: 'freight', currency: 'EUR', was: '0', is: '18.5' }),
]

describe('an order on paper', () => {
  // Marks of numbers and dates: Unicode CLDR, by way of the runtime.
  test('in German: words, numbers and days', () => {
    expect(changes(ORDER_PAPER.de)).toEqual([
      'Seal: 3 Stück statt 10 Stück',
      'Seal: nicht mehr bestellt (vorher 10 Stück)',
      'Seal: zu 12,00 statt 1.234,50',
      'Seal: benötigt am 11. Januar 2027 statt am 8. Dezember 2026',
      'Fracht: 18,50 statt keine',
    ])
    expect(ORDER_PAPER.de.paid({ kind: 'month-end', days: 15 })).toBe('Monatsende und 15 Tage')
  })
  test('in French: words, numbers and days', () => {
    const [less, off, price, day, freight] = changes(ORDER_PAPER.fr)
    expect([less, off, freight]).toEqual([
      'Seal\u00A0: 3 pce au lieu de 10 pce',
      'Seal\u00A0: n’est plus commandé (10 pce auparavant)',
      'Port\u00A0: 18,50 au lieu de aucun',
    ])
    expect(price?.replace(/\s/g, ' ')).toBe('Seal : à 12,00 au lieu de 1 234,50')
    expect(day).toBe('Seal\u00A0: pour le 11 janvier 2027 au lieu du 8 décembre 2026')
  })
  test.each(LANGUAGE_CODES)('%s says everything, and no unit by its code', (language) => {
    const { say, ways } = { say: ORDER_PAPER[language], ways: OUTWARD_IN[language] }
    const said = Object.values(say).flatMap((w) => (typeof w === 'string' ? [w] : []))
    expect(said.every((w) => w.trim() !== '')).toBe(true)
    expect(new Set(said).size).toBeGreaterThan(15)
    for (const unit of Object.keys(UNITS)) expect(ways.quantity('2', unit)).not.toContain(unit)
  })
})
