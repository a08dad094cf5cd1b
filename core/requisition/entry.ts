import { readTypedNumber } from '#core/base/typed-number'
import type { DecimalText } from '#core/base/decimal'

/** What was typed into the add field, as it was understood. */
export interface Entry {
  readonly words: string
  /** Null where no quantity was typed. */
  readonly quantity: DecimalText | null
  /** A price for one, typed at the end; null where none was. */
  readonly price: DecimalText | null
}

/**
 * Reads the add field: a number in front is a quantity ("6 quartz sleeve", "6x quartz sleeve"), a
 * number at the end a price for one ("take away old lamps 140"). A number that is part of a name
 * ("25 mm bolt 8.8") is told apart only by its unit: a front number followed by a measure stays words.
 */
export function readEntry(text: string, decimalMark: '.' | ','): Entry {
  let words = text.replace(/\s+/g, ' ').trim()
  let quantity: DecimalText | null = null
  let price: DecimalText | null = null
  const front = /^(\d[\d.,]*(?:\*\d[\d.,]*)?)\s*[x×]?\s+(?!(?:mm|cm|m|kg|g|l|ml|v|w|a|bar|inch|in|%)\b)(\S.*)$/i.exec(
    words,
  )
  if (front?.[1] !== undefined && front[2] !== undefined) {
    const n = readTypedNumber(front[1], decimalMark)
    if (n !== null) {
      quantity = n
      words = front[2]
    }
  }
  const back = /^(.*\S)\s+(?:at\s+|@\s*)?(\d[\d.,]*(?:\*\d[\d.,]*)?)$/.exec(words)
  if (back?.[1] !== undefined && back[2] !== undefined && /\p{L}/u.test(back[1])) {
    const n = readTypedNumber(back[2], decimalMark)
    if (n !== null) {
      price = n
      words = back[1].replace(/\s+(?:at|@)$/, '')
    }
  }
  return { words, quantity, price }
}
