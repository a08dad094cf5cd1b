import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import PDFDocument from 'pdfkit'
import { formatDate, formatKept, formatPrice, formatQuantity } from '#shared/words/format'
import { sayTerms } from '#shared/words/terms'
import { type OrderSnapshot } from './snapshot'

const MARGIN = 50
const WIDTH = 595.28 - 2 * MARGIN
const BOTTOM = 841.89 - 70
const INK = '#14231f'
const SECOND = '#44554f'

/** Faces by name: ours, and those that have the characters ours lack. They are read when they are needed. */
const FACES = {
  text: '@expo-google-fonts/hanken-grotesk/400Regular/HankenGrotesk_400Regular.ttf',
  bold: '@expo-google-fonts/hanken-grotesk/600SemiBold/HankenGrotesk_600SemiBold.ttf',
  title: '@expo-google-fonts/newsreader/500Medium/Newsreader_500Medium.ttf',
  other: '@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf',
  arabic: '@expo-google-fonts/noto-sans-arabic/400Regular/NotoSansArabic_400Regular.ttf',
  hebrew: '@expo-google-fonts/noto-sans-hebrew/400Regular/NotoSansHebrew_400Regular.ttf',
  emoji: '@expo-google-fonts/noto-emoji/400Regular/NotoEmoji_400Regular.ttf',
} as const
type Face = keyof typeof FACES
type OwnFace = 'text' | 'bold' | 'title'
const read = new Map<string, Buffer>()

const COLUMNS = [
  { name: 'What', x: 0, width: 225, align: 'left' },
  { name: 'How many', x: 225, width: 75, align: 'right' },
  { name: 'Price', x: 300, width: 75, align: 'right' },
  { name: 'Needed', x: 385, width: 45, align: 'left' },
  { name: 'Amount', x: 430, width: WIDTH - 430, align: 'right' },
] as const

/**
 * Makes the PDF of an order: tagged, with its own faces; right-to-left words and pictographs have faces
 * too, and what none has is a white square and never stops it. `root` is where the packages lie.
 */
export async function renderOrder(order: OrderSnapshot, root: string): Promise<Buffer> {
  const issued = new Date(`${order.issuedOn}T12:00:00Z`)
  const doc = new PDFDocument({
    size: 'A4', margin: MARGIN, bufferPages: true, tagged: true, pdfVersion: '1.7', lang: 'en', displayTitle: true, font: '',
    info: { Title: `Purchase order ${order.number}`, Author: order.organisation.name, CreationDate: issued, ModDate: issued },
  } as PDFKit.PDFDocumentOptions)
  for (const [name, path] of Object.entries(FACES)) {
    const bytes = read.get(path) ?? readFileSync(join(root, 'node_modules', path))
    read.set(path, bytes)
    doc.registerFont(name, bytes)
  }
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  const done = new Promise<void>((resolve, reject) => { doc.on('end', resolve); doc.on('error', reject) })
  drawOrder(doc, order)
  numberPages(doc, order)
  doc.end()
  await done
  return Buffer.concat(chunks)
}

type Doc = InstanceType<typeof PDFDocument>
interface Place { readonly x: number; readonly y: number; readonly width: number; readonly align?: 'left' | 'right' }

function drawOrder(doc: Doc, order: OrderSnapshot): void {
  const body = doc.struct('Document')
  doc.addStructure(body)
  let y = MARGIN
  const tell = (tag: string, face: OwnFace, size: number, color: string, text: string, x = MARGIN, width = WIDTH) => {
    let height = 0
    body.add(doc.struct(tag, {}, () => { height = write(doc, face, size, color, text, { x, y, width }) }))
    return height
  }
  y += tell('P', 'bold', 11, INK, order.organisation.name)
  y += tell('P', 'text', 9, SECOND, order.organisation.address) + 20
  y += tell('H1', 'title', 22, INK, `Purchase order ${order.number}`) + 2
  y += tell('P', 'text', 10, SECOND, `${formatDate(order.issuedOn, '')} · please quote this number on everything you send`) + 18
  const half = WIDTH / 2 - 10
  const top = y
  const left = [['To', `${order.supplier.name}\n${order.supplier.address}\n${order.supplier.email}`], ['Terms', sayTerms(order.terms)]] as const
  const right = [['Deliver to', [order.shipTo.name, order.shipTo.address, ...order.shipTo.details].join('\n')], ['Buyer', order.buyer]] as const
  for (const [label, value] of left) { y += tell('P', 'bold', 9, SECOND, label, MARGIN, half); y += tell('P', 'text', 10, INK, value, MARGIN, half) + 8 }
  const leftEnd = y
  y = top
  for (const [label, value] of right) {
    y += tell('P', 'bold', 9, SECOND, label, MARGIN + half + 20, half)
    y += tell('P', 'text', 10, INK, value, MARGIN + half + 20, half) + 8
  }
  y = Math.max(y, leftEnd) + 10
  const table = doc.struct('Table')
  body.add(table)
  y = drawHead(doc, table, y, order.currency)
  for (const line of order.lines) y = drawLine(doc, table, y, line, order)
  table.end()
  y += 8
  const sums: [string, string, OwnFace][] = [
    ['Without tax', formatKept(order.net, order.currency), 'text'],
    ...order.taxes.map((t): [string, string, OwnFace] => [`Tax ${formatPrice(t.rate, 'JPY')} % on ${formatKept(t.taxable, order.currency)}`, formatKept(t.tax, order.currency), 'text']),
    ['Total', `${order.currency} ${formatKept(order.total, order.currency)}`, 'bold'],
  ]
  for (const [label, value, face] of sums) {
    if (y > BOTTOM - 20) { doc.addPage(); y = MARGIN }
    const height = Math.max(tell('P', face, 10, INK, label, MARGIN + 225, 200), 14)
    body.add(doc.struct('P', {}, () => { write(doc, face, 10, INK, value, { x: MARGIN + 430, y, width: WIDTH - 430, align: 'right' }) }))
    y += height + 3
  }
  if (order.note !== '') { y += 14; tell('P', 'text', 10, INK, order.note) }
  body.end()
}

type Struct = ReturnType<Doc['struct']>

function drawHead(doc: Doc, table: Struct, y: number, currency: string): number {
  const row = doc.struct('TR')
  table.add(row)
  for (const c of COLUMNS) {
    row.add(doc.struct('TH', {}, () => { write(doc, 'bold', 9, SECOND, c.name === 'Amount' ? `${c.name}, ${currency}` : c.name, { x: MARGIN + c.x, y, width: c.width, align: c.align }) }))
  }
  row.end()
  rule(doc, y + 16, INK)
  return y + 22
}

function drawLine(doc: Doc, table: Struct, at: number, line: OrderSnapshot['lines'][number], order: OrderSnapshot): number {
  const base = line.priceBase === '1' ? '' : ` per ${line.priceBase}`
  const cells = [
    line.supplierPart === null ? line.description : `${line.description}\n${line.supplierPart}`,
    formatQuantity(line.quantity, line.unit), `${formatPrice(line.unitPrice, order.currency)}${base}`,
    `${Number(line.needBy.slice(8))}.${Number(line.needBy.slice(5, 7))}.${line.needBy.slice(2, 4)}`, formatKept(line.net, order.currency),
  ]
  const height = Math.max(...cells.map((text, i) => measure(doc, 'text', 10, text, COLUMNS[i]?.width ?? 50)), 14)
  let y = at
  if (y + height > BOTTOM) { doc.addPage(); y = drawHead(doc, table, MARGIN, order.currency) }
  const row = doc.struct('TR')
  table.add(row)
  cells.forEach((text, i) => {
    const c = COLUMNS[i]
    if (c !== undefined) row.add(doc.struct('TD', {}, () => { write(doc, 'text', 10, INK, text, { x: MARGIN + c.x, y, width: c.width - (i === 0 ? 10 : 0), align: c.align }) }))
  })
  row.end()
  rule(doc, y + height + 3, '#d6ddd6')
  return y + height + 8
}

function rule(doc: Doc, y: number, color: string): void {
  doc.markContent('Artifact', { type: 'Layout' })
  doc.moveTo(MARGIN, y).lineTo(MARGIN + WIDTH, y).lineWidth(0.5).strokeColor(color).stroke()
  doc.endMarkedContent()
}

/** Writes a text, each part of it in the first face that has its characters. Returns its height. */
function write(doc: Doc, face: OwnFace, size: number, color: string, text: string, p: Place): number {
  const parts = runs(text, face)
  doc.fontSize(size).fillColor(color)
  parts.forEach((part, i) => {
    const options = { width: p.width, align: p.align ?? 'left' as const, lineGap: 1, continued: i < parts.length - 1 }
    doc.font(part.face)
    if (i === 0) doc.text(part.text, p.x, p.y, options)
    else doc.text(part.text, options)
  })
  return measure(doc, face, size, text, p.width)
}

function measure(doc: Doc, face: OwnFace, size: number, text: string, width: number): number {
  const [first] = runs(text, face)
  return doc.font(first?.face ?? face).fontSize(size).heightOfString(runs(text, face).map((r) => r.text).join(''), { width, lineGap: 1 })
}

const SCRIPTS: readonly [Face, RegExp][] = [
  ['arabic', /\p{Script=Arabic}/u], ['hebrew', /\p{Script=Hebrew}/u], ['emoji', /\p{Extended_Pictographic}/u], ['other', /[\p{Script=Cyrillic}\p{Script=Greek}]/u],
]
const OWN = /[\u0000-\u024f\u2010-\u203a\u20ac\u2212\u25a1]/

/** Cuts a text where its face has to change; blanks stay with the part before them. */
function runs(text: string, own: OwnFace): { face: Face; text: string }[] {
  const parts: { face: Face; text: string }[] = []
  for (const sign of clean(text)) {
    const found = /\s/.test(sign) ? parts.at(-1)?.face ?? own : OWN.test(sign) ? own : SCRIPTS.find(([, pattern]) => pattern.test(sign))?.[0]
    const face = found ?? own
    const shown = found === undefined ? '\u25a1' : sign
    const last = parts.at(-1)
    if (last?.face === face) last.text += shown
    else parts.push({ face, text: shown })
  }
  return parts.length === 0 ? [{ face: own, text: '' }] : parts
}

/** Control and direction characters have no shape of their own. */
function clean(text: string): string {
  return text.replace(/[\u0000-\u0009\u000b-\u001f\u200b-\u200f\u202a-\u202e\u2066-\u2069\ufe0f]/g, '')
}

function numberPages(doc: Doc, order: OrderSnapshot): void {
  const { start, count } = doc.bufferedPageRange()
  for (let i = start; i < start + count; i += 1) {
    doc.switchToPage(i)
    doc.markContent('Artifact', { type: 'Pagination' })
    doc.page.margins.bottom = 0
    doc.font('text').fontSize(8).fillColor(SECOND).text(`${order.number} · page ${i + 1} of ${count}`, MARGIN, 841.89 - 40, { width: WIDTH, align: 'right', lineBreak: false })
    doc.endMarkedContent()
  }
}
