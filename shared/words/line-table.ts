import type { LineColumn, RowReason } from '#core/requisition/line-table'
import { MOST_LINES } from '#core/requisition/draft'

/** What a column of a pasted range holds, as its heading says it. */
export const COLUMN_NAMES: Readonly<Record<LineColumn, string>> = {
  description: 'what',
  part: 'part number',
  quantity: 'how many',
  unit: 'unit',
  price: 'price of one',
  payer: 'paid from',
  supplier: 'supplier',
  needBy: 'needed by',
  nothing: 'left out',
}

/** What is wrong with a row, or how it was read. */
export function sayRowReason(r: RowReason): string {
  switch (r.code) {
    case 'row-no-words':
      return 'It does not say what is needed.'
    case 'row-no-room':
      return `A requisition holds at most ${MOST_LINES} lines.`
    case 'row-too-long':
      return 'Its text is longer than 400 characters.'
    case 'row-quantity':
      return `“${short(r.text)}” is not a quantity.`
    case 'row-price':
      return `“${short(r.text)}” is not a price; it is left open.`
    case 'row-unit':
      return `The unit “${short(r.text)}” is not known; it becomes “each”.`
    case 'row-payer':
      return `What pays is not clear from “${short(r.text)}”; it goes with the line above.`
    case 'row-supplier':
      return `No one supplier is called “${short(r.text)}”; the buyer decides.`
    case 'row-day':
      return `“${short(r.text)}” is no day to come; it is needed with the rest.`
    case 'row-formula':
      return 'It began like a formula; its sign is left out.'
  }
}

const short = (text: string) => (text.length > 30 ? `${text.slice(0, 28)}…` : text)
