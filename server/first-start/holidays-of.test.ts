import { expect, test } from 'vitest'
import { holidaysOf, regionsOf } from './holidays-of'

// From memory of the German states' acts on holidays: Epiphany is one in Bavaria, and none in Hamburg.
test('holidays are those of a region where one is named, this year’s and the next two’s', () => {
  const days = (region: string) => holidaysOf('DE', region, '2026-11-27').map((h) => h.day)
  const epiphanies = ['2026-01-06', '2027-01-06', '2028-01-06']
  expect(days('BY')).toEqual(expect.arrayContaining([...epiphanies, '2026-10-03']))
  for (const region of ['HH', '']) for (const day of epiphanies) expect(days(region)).not.toContain(day)
  expect(days('HH')).toContain('2027-10-03')
})
test('a country says which regions it has', () => {
  expect(regionsOf('DE').find((r) => r.id === 'HH')?.name).toContain('Hamburg')
  expect(regionsOf('MC')).toEqual([])
})
