import { expect, test } from 'vitest'
import { lettersOf, searchTextOf, wordsOf } from './search-text'

test('an item is found by its words and by its numbers, with and without punctuation', () => {
  expect(
    searchTextOf({
      name: 'Quartz sleeve, 25 mm',
      number: 'H-00123',
      supplierPart: 'CP-QS 25',
      supplier: 'Corrigan Pumps',
      description: '',
    }),
  ).toBe('quartz sleeve, 25 mm h-00123 cp-qs 25 corrigan pumps  h00123 cpqs25')
})

test('what is typed is read as words, eight at most', () => {
  expect(wordsOf(' Quartz  sleeve, 25mm; ')).toEqual(['quartz', 'sleeve', '25mm'])
  expect(wordsOf('a b c d e f g h i')).toHaveLength(8)
  expect(wordsOf(' , ')).toEqual([])
})

test('letters that changed places leave a word its letters', () => {
  expect(lettersOf('slat')).toBe(lettersOf('salt'))
  expect(lettersOf('slats')).not.toBe(lettersOf('salt'))
})
