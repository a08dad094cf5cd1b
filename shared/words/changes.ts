import type { RequestChange } from '#core/requisition/changes'
import { listWords } from './format'
import type { Ways } from './ways'

/** One thing that is not as it was when a request was last sent: "Quartz sleeve: 7 → 5 each". */
export function sayChange(c: RequestChange, ways: Ways): string {
  switch (c.code) {
    case 'line-added':
      return `new: ${c.what}`
    case 'line-removed':
      return `gone: ${c.what}`
    case 'quantity':
      return `${c.what}: ${ways.decimal(c.from)} → ${ways.quantity(c.to, c.unit)}`
    case 'price': {
      const price = (p: string | null) => (p === null ? 'not known' : ways.price(p, c.currency))
      return `${c.what}: ${price(c.from)} → ${price(c.to)} ${c.currency}`
    }
    case 'line-otherwise':
      return `${c.what}: another ${listWords(c.parts)}`
    case 'need-by': {
      const day = (d: string | null) => (d === null ? 'no day' : ways.date(d, ''))
      return `needed by ${day(c.from)} → ${day(c.to)}`
    }
    case 'otherwise':
      return `another ${listWords(c.parts)}`
  }
}
