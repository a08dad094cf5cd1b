import { withoutPunctuation } from '#core/base/without-punctuation'

/** What an item is found by: its words and numbers in one lower-case text, the numbers also without punctuation. */
export function searchTextOf(item: {
  readonly name: string
  readonly number: string
  readonly supplierPart: string
  readonly supplier: string
  readonly description: string
}): string {
  const { number, supplierPart } = item
  return [
    item.name,
    number,
    supplierPart,
    item.supplier,
    item.description,
    withoutPunctuation(number),
    withoutPunctuation(supplierPart),
  ]
    .join(' ')
    .toLowerCase()
}

const MOST_WORDS = 8

/** What was typed, as the words that are looked for, in lower case. */
export function wordsOf(typed: string): string[] {
  return typed
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter((w) => w !== '')
    .slice(0, MOST_WORDS)
}

/** A word's letters in order: two that were swapped in typing leave it the same. */
export const lettersOf = (word: string): string => [...word].sort().join('')
