import type { Day } from '#core/base/day'
import { dec, type DecimalText } from '#core/base/decimal'
import { readTypedDay } from '#core/base/typed-day'
import { readTypedNumber } from '#core/base/typed-number'
import { isUnit, UNITS, unitName, type UnitCode } from '#core/base/unit'
import { readEntry } from './entry'
import type { DraftLine } from './draft'
import { readTypedPayer, type Payer, type TypedPayer } from './typed-payer'

/** What a column of a pasted range or a file holds. */
export type LineColumn =
  'description' | 'part' | 'quantity' | 'unit' | 'price' | 'payer' | 'supplier' | 'needBy' | 'nothing'

/** How a range of cells is read: whether its first row names the columns, and what each holds. */
export interface LineTable {
  readonly head: boolean
  readonly columns: readonly LineColumn[]
}

/** How the person writes numbers and days. */
export interface CellWays {
  readonly mark: '.' | ','
  readonly monthFirst: boolean
  readonly today: Day
}

/** What the cells of a range are read with. */
export interface ReadWith extends CellWays {
  /** How many lines the requisition still takes. */
  readonly room: number
  readonly payers: readonly Payer[]
  /** The ids of suppliers by what was typed, null where none or several are called so; what is not in it is open. */
  readonly suppliers: ReadonlyMap<string, string | null>
}

/** What is wrong with a row (`stops`: it cannot be taken), or how it was read. */
export type RowReason =
  | { readonly code: 'row-no-words' | 'row-no-room' | 'row-too-long'; readonly stops: true }
  | { readonly code: 'row-quantity'; readonly stops: true; readonly text: string }
  | {
      readonly code: 'row-price' | 'row-unit' | 'row-payer' | 'row-supplier' | 'row-day'
      readonly stops: false
      readonly text: string
    }
  | { readonly code: 'row-formula'; readonly stops: false }

export interface ReadRow {
  /** The row in the range, from 1. */
  readonly at: number
  readonly description: string
  readonly part: string | null
  readonly quantity: DecimalText
  readonly unit: UnitCode | null
  readonly price: DecimalText | null
  readonly payer: TypedPayer | null
  /** What stands in the supplier's cell. */
  readonly supplier: string
  readonly supplierId: string | null
  readonly needBy: Day | null
  readonly reasons: readonly RowReason[]
}

const HEADS: readonly (readonly [LineColumn, RegExp])[] = [
  ['needBy', /^(need(ed)?[ -]?by|by when|required( by| on)?|delivery (date|day)|due( date)?|date|when)\b/],
  ['payer', /^(account|g\/?l|ledger|cost ?-?cent(re|er)|budget|paid (from|by)|payer|charge(d)? to|coding)\b/],
  ['supplier', /^(supplier|vendor|bought from|from whom)( name)?$/],
  ['part', /^(supplier )?(part|article|item|catalogue|order|product|material)[ -]?(no|nr|num|number|code|id|ref)\b/],
  ['part', /^(part|sku|ref|reference|code|number|no)\.?$/],
  ['quantity', /^(qty|quantity|how many|count|pcs|pieces|number of|amount needed|needed)\b/],
  ['unit', /^(unit|uom|unit of measure|measure|per)\.?$/],
  ['price', /\b(price|cost|rate|each|net)\b/],
  ['description', /^(description|what|item|product|article|name|text|goods|service|designation)\b/],
]
/** How people write units besides their names here; common practice, no source. */
const UNIT_WORDS: Readonly<Record<string, UnitCode>> = {
  pc: 'H87',
  pcs: 'H87',
  piece: 'H87',
  pieces: 'H87',
  each: 'H87',
  ea: 'H87',
  no: 'H87',
  unit: 'H87',
  units: 'H87',
  kilo: 'KGM',
  kilos: 'KGM',
  m: 'MTR',
  l: 'LTR',
  t: 'TNE',
  h: 'HUR',
  hr: 'HUR',
  hrs: 'HUR',
  d: 'DAY',
  boxes: 'BX',
  bx: 'BX',
  pkt: 'PK',
  packet: 'PK',
  packets: 'PK',
  m2: 'MTK',
  sqm: 'MTK',
  ls: 'E48',
}
const LONGEST = 400

function readUnit(text: string): UnitCode | null {
  const code = text.trim().toUpperCase()
  if (isUnit(code)) return code
  const word = text.trim().toLowerCase().replace(/\.$/, '')
  const known = UNIT_WORDS[word]
  if (known !== undefined) return known
  const named = Object.keys(UNITS)
    .filter(isUnit)
    .find((c) => c !== 'EA' && (unitName(c) === word || `${unitName(c)}s` === word))
  return named ?? null
}

/** A number as cells have it: with a currency sign or code around it at most. */
function readCellNumber(text: string, mark: '.' | ','): DecimalText | null {
  return readTypedNumber(text.replace(/^[€£$\s]+|[€£$\s]+$|^[A-Z]{3}\s|\s[A-Z]{3}$/g, ''), mark)
}

function headOf(cell: string): LineColumn | null {
  const text = cell.trim().toLowerCase()
  return text === '' || text.length > 40 ? null : (HEADS.find(([, pattern]) => pattern.test(text))?.[0] ?? null)
}

/**
 * Recognises the columns of a range: by the names in its first row where at least one is known and
 * none of its cells is a number, else by what the columns hold (words over numbers are names too). What is recognised
 * is shown before it is taken.
 */
export function recogniseTable(
  rows: readonly (readonly string[])[],
  mark: '.' | ',',
  payers: readonly Payer[] = [],
): LineTable {
  const width = Math.max(0, ...rows.map((r) => r.length))
  const first = rows[0] ?? []
  const named = Array.from({ length: width }, (_, i) => headOf(first[i] ?? ''))
  const head = named.some((c) => c !== null) && !first.some((c) => readCellNumber(c, mark) !== null)
  if (head) return { head, columns: unique(named.map((c) => c ?? 'nothing')) }
  const columns = guess(rows, width, mark, payers)
  // Words over a column of numbers are its name, whatever language they are in.
  const numbers = columns.flatMap((c, i) => (c === 'quantity' || c === 'price' ? [i] : []))
  const isHead =
    rows.length > 1 &&
    numbers.length > 0 &&
    numbers.every((i) => (first[i] ?? '').trim() !== '' && readCellNumber(first[i] ?? '', mark) === null)
  return { head: isHead, columns: isHead ? guess(rows.slice(1), width, mark, payers) : columns }
}

/** A column may be named twice; only the first counts. */
function unique(columns: readonly LineColumn[]): LineColumn[] {
  return columns.map((c, i) => (c !== 'nothing' && columns.indexOf(c) < i ? 'nothing' : c))
}

function guess(
  rows: readonly (readonly string[])[],
  width: number,
  mark: '.' | ',',
  payers: readonly Payer[],
): LineColumn[] {
  const cells = Array.from({ length: width }, (_, i) => rows.map((r) => (r[i] ?? '').trim()).filter((c) => c !== ''))
  const share = (i: number, test: (c: string) => boolean) => {
    const all = cells[i] ?? []
    return all.length === 0 ? 0 : all.filter(test).length / all.length
  }
  const columns: LineColumn[] = Array.from({ length: width }, () => 'nothing')
  const isNumber = (c: string) => readCellNumber(c, mark) !== null
  const codes = new Set(payers.map((p) => p.code.toLowerCase()))
  for (let i = 0; i < width; i += 1) {
    if (share(i, (c) => readUnit(c) !== null && !isNumber(c)) > 0.7) columns[i] = 'unit'
    else if (share(i, (c) => codes.has(c.toLowerCase())) > 0.7) columns[i] = 'payer'
    else if (share(i, (c) => WHOLE_DAY.test(c)) > 0.7) columns[i] = 'needBy'
  }
  const numbers = columns.flatMap((c, i) => (c === 'nothing' && share(i, isNumber) >= 0.5 ? [i] : []))
  const texts = columns.flatMap((c, i) =>
    c === 'nothing' && !numbers.includes(i) && (cells[i] ?? []).length > 0 ? [i] : [],
  )
  const length = (i: number) => (cells[i] ?? []).reduce((n, c) => n + c.length, 0)
  const words = texts.reduce<number | null>((a, b) => (a === null || length(b) > length(a) ? b : a), null)
  if (words !== null) columns[words] = 'description'
  const part = texts.find((i) => i !== words && share(i, (c) => /\d/.test(c) && !/\s/.test(c)) > 0.7)
  if (part !== undefined) columns[part] = 'part'
  if (words === null && part === undefined) return columns
  // Of two columns of numbers the whole ones are quantities; of three, the last is a sum that is worked out anyway.
  const whole = numbers.find((i) => share(i, (c) => !/[.,]\d/.test(c)) > 0.7)
  const quantity = numbers.length === 1 && whole === undefined ? undefined : (whole ?? numbers[0])
  if (quantity !== undefined) columns[quantity] = 'quantity'
  const price = numbers.find((i) => i !== quantity)
  if (price !== undefined) columns[price] = 'price'
  return unique(columns)
}

/** A day with its year, in figures. */
const WHOLE_DAY = /^(\d{4}-\d{1,2}-\d{1,2}|\d{1,2}[./]\d{1,2}[./](\d{4}|\d{2}))$/

/**
 * Reads the rows of a range as lines, each with what is wrong with it; rows without a word are left
 * out. A range of one column is read like the add field: "6 quartz sleeve", "take away old lamps 140".
 */
export function readTable(rows: readonly (readonly string[])[], table: LineTable, w: ReadWith): ReadRow[] {
  const from = table.head ? 1 : 0
  const single = table.columns.filter((c) => c !== 'nothing').length === 1 && table.columns.includes('description')
  let taken = 0
  return rows.slice(from).flatMap((cells, i) => {
    if (cells.every((c) => c.trim() === '')) return []
    const row = single ? readWords(cells, table, w.mark) : readCells(cells, table, w)
    const reasons = [...row.reasons]
    if (row.description === '' && row.part === null) reasons.push({ code: 'row-no-words', stops: true })
    if (row.description.length > LONGEST) reasons.push({ code: 'row-too-long', stops: true })
    if (!reasons.some((r) => r.stops)) {
      if (taken >= w.room) reasons.push({ code: 'row-no-room', stops: true })
      else taken += 1
    }
    return [{ ...row, at: i + from + 1, reasons }]
  })
}

function cellOf(cells: readonly string[], table: LineTable, column: LineColumn): string {
  const i = table.columns.indexOf(column)
  return i < 0 ? '' : (cells[i] ?? '').trim()
}

/** Words of a cell without what a spreadsheet would take for a formula. */
function plainWords(text: string): { words: string; wasFormula: boolean } {
  const words = text
    .replace(/^[=@+\s]+/, '')
    .replace(/\s+/g, ' ')
    .trim()
  return { words, wasFormula: /^[=@+]/.test(text.trim()) }
}

function readWords(cells: readonly string[], table: LineTable, mark: '.' | ','): Omit<ReadRow, 'at'> {
  const { words, wasFormula } = plainWords(cellOf(cells, table, 'description'))
  const entry = readEntry(words, mark)
  return {
    description: entry.words,
    part: null,
    quantity: entry.quantity ?? '1',
    unit: null,
    price: entry.price,
    payer: null,
    supplier: '',
    supplierId: null,
    needBy: null,
    reasons: wasFormula ? [{ code: 'row-formula', stops: false }] : [],
  }
}

function readCells(cells: readonly string[], table: LineTable, w: ReadWith): Omit<ReadRow, 'at'> {
  const { mark } = w
  const reasons: RowReason[] = []
  const { words, wasFormula } = plainWords(cellOf(cells, table, 'description'))
  if (wasFormula) reasons.push({ code: 'row-formula', stops: false })
  const [quantityText, priceText, unitText] = [
    cellOf(cells, table, 'quantity'),
    cellOf(cells, table, 'price'),
    cellOf(cells, table, 'unit'),
  ]
  const quantity = quantityText === '' ? '1' : readCellNumber(quantityText, mark)
  if (quantity === null || !dec(quantity).isPositive() || /^\d{13}/.test(quantity))
    reasons.push({ code: 'row-quantity', stops: true, text: quantityText })
  const price = priceText === '' ? null : readCellNumber(priceText, mark)
  const soundPrice = price === null || dec(price).isNegative() || /^\d{13}/.test(price) ? null : price
  if (priceText !== '' && soundPrice === null) reasons.push({ code: 'row-price', stops: false, text: priceText })
  const unit = unitText === '' ? null : readUnit(unitText)
  if (unitText !== '' && unit === null) reasons.push({ code: 'row-unit', stops: false, text: unitText })
  const part = cellOf(cells, table, 'part').slice(0, 80)
  const payerText = cellOf(cells, table, 'payer')
  const payer = payerText === '' ? null : readTypedPayer(payerText, w.payers, mark)
  if (payerText !== '' && payer === null) reasons.push({ code: 'row-payer', stops: false, text: payerText })
  const supplier = cellOf(cells, table, 'supplier').slice(0, 100)
  const supplierId = w.suppliers.get(supplier) ?? null
  if (w.suppliers.get(supplier) === null) reasons.push({ code: 'row-supplier', stops: false, text: supplier })
  const dayText = cellOf(cells, table, 'needBy')
  const day = readTypedDay(dayText, w.today, w.monthFirst)
  const needBy = day !== null && day >= w.today ? day : null
  if (dayText !== '' && needBy === null) reasons.push({ code: 'row-day', stops: false, text: dayText })
  return {
    description: words,
    part: part === '' ? null : part,
    quantity: quantity ?? '1',
    unit,
    price: soundPrice,
    payer,
    supplier,
    supplierId,
    needBy,
    reasons,
  }
}

/** A line as a range of cells has it, with the names of what it holds by id. */
export type WrittenLine = Pick<
  DraftLine,
  'description' | 'supplierPart' | 'quantity' | 'unit' | 'unitPrice' | 'priceBase' | 'needBy'
> & { readonly supplier: string; readonly payer: string }

/**
 * The lines of a requisition as a range of cells that `recogniseTable` reads back, with the names of its columns
 * first.
 */
export function writeTable(lines: readonly WrittenLine[]): string[][] {
  return [
    ['Description', 'Part number', 'Quantity', 'Unit', 'Price', 'Supplier', 'Paid from', 'Needed by'],
    ...lines.map((l) => [
      l.description,
      l.supplierPart ?? '',
      l.quantity,
      unitName(l.unit),
      l.unitPrice === null
        ? ''
        : l.priceBase === '1'
          ? l.unitPrice
          : dec(l.unitPrice).dividedBy(dec(l.priceBase)).toPlaces(6).toFixed(),
      l.supplier,
      l.payer,
      l.needBy ?? '',
    ]),
  ]
}
