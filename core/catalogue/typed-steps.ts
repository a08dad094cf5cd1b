import { dec } from '#core/base/decimal'
import { readTypedNumber } from '#core/base/typed-number'

/** Steps that an item may have, and decimals that a price keeps. */
const MOST = 20
const DECIMALS = 6

/**
 * Reads prices by quantity as people write them: “4.20; 10: 3.90; 50: 3.50” is 4.20 each, 3.90 from ten on and 3.50
 * from fifty. Answers with their one plain form (“1: 4.2; 10: 3.9; 50: 3.5”), quantities rising; null where it cannot
 * be read, a quantity stands twice, or a number is negative or has more than six decimals.
 */
export function readSteps(text: string, mark: '.' | ','): string | null {
  const parts = text
    .split(/[;\n]/)
    .map((p) => p.trim())
    .filter((p) => p !== '')
  if (parts.length === 0 || parts.length > MOST) return null
  const steps = new Map<string, string>()
  for (const part of parts) {
    const [first = '', second, more] = part.split(/[:=@]/).map((t) => t.replace(/^(from|ab|dès)\s+/i, '').trim())
    if (more !== undefined) return null
    const from = second === undefined ? '1' : readNumber(first, mark)
    const price = readNumber((second ?? first).replace(/^[A-Z]{3}\s/, ''), mark)
    if (from === null || price === null) return null
    if (steps.has(from)) return null
    steps.set(from, price)
  }
  return writeSteps([...steps].map(([from, unitPrice]) => ({ from, unitPrice })))
}

/** A number of nothing or more that is kept as it was written; null where it would have to be rounded. */
function readNumber(text: string, mark: '.' | ','): string | null {
  const number = readTypedNumber(text, mark, DECIMALS + 1)
  return number === null || dec(number).isNegative() || dec(number).places() > DECIMALS ? null : number
}

/** Steps in their one plain form, quantities rising; "" where there is none. */
export function writeSteps(steps: readonly { readonly from: string; readonly unitPrice: string }[]): string {
  return [...steps]
    .sort((a, b) => (dec(a.from).lt(dec(b.from)) ? -1 : 1))
    .map((s) => `${dec(s.from).toFixed()}: ${dec(s.unitPrice).toFixed()}`)
    .join('; ')
}

/** The steps of a plain form. */
export function stepsOf(plain: string): { from: string; unitPrice: string }[] {
  return plain
    .split('; ')
    .filter((p) => p !== '')
    .map((p) => {
      const [from = '1', unitPrice = '0'] = p.split(': ')
      return { from, unitPrice }
    })
}
