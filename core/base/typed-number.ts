import { Decimal, type DecimalText } from './decimal'

/** Decimals that a quantity or a unit price keeps. */
const PLACES = 6

/**
 * Reads a number as people type it: "1,234.5", "1.234,50", "1 234,50", "1234,50" and small sums such
 * as "3*12.5" or "10+2.50". Returns null where it cannot be read. A lone comma or point with three
 * digits behind it is a thousands mark only if it is not the person's own decimal mark.
 */
export function readTypedNumber(text: string, decimalMark: '.' | ',', places = PLACES): DecimalText | null {
  const compact = text
    .replace(/[\s\u00a0\u202f\u2019']/g, '')
    .replace(/\u2212/g, '-')
    .replace(/\u00d7/g, '*')
  if (compact === '' || compact.length > 60) return null
  const parts = compact.split(/(?<=[\d.,])([+\-*/])/)
  let value: Decimal | null = null
  let pending: { at: Decimal; op: '+' | '-' } | null = null
  for (let i = 0; i < parts.length; i += 2) {
    const n = readPlain(parts[i] ?? '', decimalMark)
    if (n === null) return null
    const op = i === 0 ? null : parts[i - 1]
    if (value === null) value = n
    else if (op === '*') value = value.times(n)
    else if (op === '/') {
      if (n.isZero()) return null
      value = value.dividedBy(n)
    } else {
      value = fold(pending, value)
      pending = { at: value, op: op === '-' ? '-' : '+' }
      value = n
    }
  }
  return value === null ? null : fold(pending, value).toPlaces(places).toFixed()
}

function fold(pending: { at: Decimal; op: '+' | '-' } | null, value: Decimal): Decimal {
  if (pending === null) return value
  return pending.op === '+' ? pending.at.plus(value) : pending.at.minus(value)
}

function readPlain(text: string, mark: '.' | ','): Decimal | null {
  const sign = text.startsWith('-') ? '-' : ''
  const body = text.slice(sign.length)
  if (!/^\d[\d.,]*$/.test(body)) return null
  const commas = body.split(',').length - 1
  const points = body.split('.').length - 1
  let decimal: '.' | ',' = mark
  if (commas > 0 && points > 0) decimal = body.lastIndexOf(',') > body.lastIndexOf('.') ? ',' : '.'
  else if (commas + points === 1) {
    const only = commas === 1 ? ',' : '.'
    decimal = only === mark || !/^\d{1,3}[.,]\d{3}$/.test(body) ? only : mark
  } else if (commas > 1) decimal = '.'
  else if (points > 1) decimal = ','
  const thousands = decimal === '.' ? ',' : '.'
  const digits = body.split(thousands).join('').replace(decimal, '.')
  return /^\d+(\.\d*)?$/.test(digits) && digits.length <= 30 ? Decimal.read(sign + digits) : null
}
