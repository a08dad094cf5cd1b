import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import * as fontkit from 'fontkit'
import PDFDocument from 'pdfkit'
import { encode } from 'uqr'
import { FACES, isOwn, runs, type OwnFace } from './faces'
import {
  INK,
  MARGIN,
  SECOND,
  WIDTH,
  type Block,
  type Labelled,
  type Paper,
  type PaperColumn,
  type SumRow,
} from './paper'

const BOTTOM = 841.89 - 70
const HALF = WIDTH / 2 - 10
/** How wide and high a code is: two centimetres. */
const CODE = 57

const parsed = new Map<string, fontkit.Font | fontkit.FontCollection>()
/** Our own faces are in every document and parsed once; the others are large, and read where one needs them. */
function kept(path: string): fontkit.Font | fontkit.FontCollection {
  const face = parsed.get(path) ?? fontkit.create(readFileSync(path))
  parsed.set(path, face)
  return face
}

type Doc = InstanceType<typeof PDFDocument> & {
  appendXML(xml: string): void
  file(bytes: Buffer, options: Readonly<Record<string, unknown>>): void
}
type Struct = ReturnType<Doc['struct']>
interface Place {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly align?: 'left' | 'right'
}

/** A page under the pen: texts go down it, tables run over to the next page with their heads. */
class Pen {
  private y = MARGIN
  private readonly body: Struct

  constructor(private readonly doc: Doc) {
    this.body = doc.struct('Document')
    doc.addStructure(this.body)
  }

  draw(block: Block): void {
    switch (block.is) {
      case 'text':
        this.makeRoom(measure(this.doc, block.face, block.size, block.text, WIDTH))
        this.y += this.tell(block.tag, block.face, block.size, block.color, block.text) + block.below
        break
      case 'labelled':
        this.labelled(block.what, MARGIN, WIDTH)
        break
      case 'sides':
        this.sides(block.left, block.right)
        break
      case 'space':
        this.y += block.height
        break
      case 'table':
        this.table(block.columns, block.rows)
        break
      case 'sums':
        this.sums(block.rows)
        break
      case 'code':
        this.code(block.address, block.text)
    }
  }

  /** Writes a text at the height where the pen stands, and says how high it is; the pen stays. */
  private tell(
    tag: string,
    face: OwnFace,
    size: number,
    color: string,
    text: string,
    x = MARGIN,
    width = WIDTH,
    align: 'left' | 'right' = 'left',
  ): number {
    let height = 0
    this.body.add(
      this.doc.struct(tag, {}, () => {
        height = write(this.doc, face, size, color, text, { x, y: this.y, width, align })
      }),
    )
    return height
  }

  private labelled({ label, value }: Labelled, x: number, width: number): void {
    this.y += this.tell('P', 'bold', 9, SECOND, label, x, width)
    this.y += this.tell('P', 'text', 10, INK, value, x, width) + 8
  }

  private sides(left: readonly Labelled[], right: readonly Labelled[]): void {
    const top = this.y
    for (const l of left) this.labelled(l, MARGIN, HALF)
    const leftEnd = this.y
    this.y = top
    for (const l of right) this.labelled(l, MARGIN + HALF + 20, HALF)
    this.y = Math.max(this.y, leftEnd)
  }

  private makeRoom(height: number): void {
    if (this.y + height > BOTTOM) {
      this.doc.addPage()
      this.y = MARGIN
    }
  }

  private table(columns: readonly PaperColumn[], rows: readonly (readonly string[])[]): void {
    const table = this.doc.struct('Table')
    this.body.add(table)
    const row = this.doc.struct('TR')
    table.add(row)
    for (const c of columns) {
      const cell = this.doc.struct('TH', {}, () => {
        this.name(c)
      })
      // A head that says of what it is one, for whoever has the table read out.
      ;(cell as unknown as { dictionary: { data: { A: object } } }).dictionary.data.A = {
        ...{ O: 'Table', Scope: 'Column' },
      }
      row.add(cell)
    }
    row.end()
    this.below()
    for (const cells of rows) this.row(table, columns, cells)
    table.end()
  }

  private name(c: PaperColumn): void {
    write(this.doc, 'bold', 9, SECOND, c.name, { x: MARGIN + c.x, y: this.y, width: c.width, align: c.align })
  }

  /** The line below the head of a table. */
  private below(): void {
    this.rule(this.y + 16, INK)
    this.y += 22
  }

  /** The head of a table once more, on its next page: for the eye alone. */
  private headAgain(columns: readonly PaperColumn[]): void {
    this.doc.markContent('Artifact', { type: 'Pagination' })
    for (const c of columns) this.name(c)
    this.doc.endMarkedContent()
    this.below()
  }

  private row(table: Struct, columns: readonly PaperColumn[], cells: readonly string[]): void {
    const height = Math.max(
      ...cells.map((text, i) => measure(this.doc, 'text', 10, text, (columns[i]?.width ?? 50) - (i === 0 ? 10 : 0))),
      14,
    )
    if (this.y + height > BOTTOM) {
      this.doc.addPage()
      this.y = MARGIN
      this.headAgain(columns)
    }
    const row = this.doc.struct('TR')
    table.add(row)
    cells.forEach((text, i) => {
      const c = columns[i]
      if (c !== undefined)
        row.add(
          this.doc.struct('TD', {}, () => {
            write(this.doc, 'text', 10, INK, text, {
              x: MARGIN + c.x,
              y: this.y,
              width: c.width - (i === 0 ? 10 : 0),
              align: c.align,
            })
          }),
        )
    })
    row.end()
    this.rule(this.y + height + 3, '#d6ddd6')
    this.y += height + 8
  }

  private sums(list: readonly SumRow[]): void {
    for (const [label, value, face] of list) {
      this.makeRoom(20)
      const height = Math.max(this.tell('P', face, 10, INK, label, MARGIN + 225, 200), 14)
      this.tell('P', face, 10, INK, value, MARGIN + 430, WIDTH - 430, 'right')
      this.y += height + 3
    }
  }

  private code(address: string, text: string): void {
    this.makeRoom(CODE)
    const { data, size } = encode(address, { ecc: 'M', border: 0 })
    const module = CODE / size
    const top = this.y
    this.body.add(
      this.doc.struct('Figure', { alt: `${text} ${address}` }, () => {
        data.forEach((row, y) => {
          row.forEach((isDark, x) => {
            if (isDark) this.doc.rect(MARGIN + x * module, top + y * module, module, module)
          })
        })
        this.doc.fill(INK)
      }),
    )
    this.tell('P', 'text', 9, SECOND, text, MARGIN + CODE + 12, 160)
    this.y = top + CODE
  }

  private rule(y: number, color: string): void {
    this.doc.markContent('Artifact', { type: 'Layout' })
    this.doc
      .moveTo(MARGIN, y)
      .lineTo(MARGIN + WIDTH, y)
      .lineWidth(0.5)
      .strokeColor(color)
      .stroke()
    this.doc.endMarkedContent()
  }

  end(): void {
    this.body.end()
  }
}

/**
 * Makes a PDF for archives (PDF/A-3a, ISO 19005-3) and for whoever has it read out (PDF/UA-1, ISO 14289-1): tagged,
 * with its own faces; other scripts have faces too, of which what is used is embedded, and what none has is a white
 * square and never stops it. `root` is where the packages lie.
 */
export async function makePdf(paper: Paper, root: string): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    bufferPages: true,
    subset: 'PDF/A-3a',
    tagged: true,
    pdfVersion: '1.7',
    lang: paper.language ?? 'en',
    displayTitle: true,
    font: '',
    info: { Title: paper.title, Author: paper.author, CreationDate: paper.at, ModDate: paper.at },
  } as PDFKit.PDFDocumentOptions) as Doc
  for (const [name, below] of Object.entries(FACES)) {
    const path = join(root, 'node_modules', below)
    // A parsed face is taken as it is, which the types of the package do not say yet.
    doc.registerFont(name, isOwn(name) ? (kept(path) as unknown as string) : path)
  }
  sayInfoAsXml(doc)
  doc.appendXML(UNIVERSAL)
  const dates = { creationDate: paper.at, modifiedDate: paper.at }
  for (const { name, mime, description, text } of paper.files ?? [])
    doc.file(Buffer.from(text, 'utf8'), { name, type: mime, description, relationship: 'Alternative', ...dates })
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  const done = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve)
    doc.on('error', reject)
  })
  const pen = new Pen(doc)
  for (const block of paper.blocks) pen.draw(block)
  pen.end()
  numberPages(doc, paper)
  doc.end()
  await done
  return Buffer.concat(chunks)
}

/** That it keeps to PDF/UA-1, with the schema by which PDF/A lets it say so. */
const UNIVERSAL = `
<rdf:Description rdf:about="" xmlns:pdfuaid="http://www.aiim.org/pdfua/ns/id/">
  <pdfuaid:part>1</pdfuaid:part>
</rdf:Description>
<rdf:Description rdf:about="" xmlns:pdfaExtension="http://www.aiim.org/pdfa/ns/extension/"
  xmlns:pdfaSchema="http://www.aiim.org/pdfa/ns/schema#" xmlns:pdfaProperty="http://www.aiim.org/pdfa/ns/property#">
  <pdfaExtension:schemas><rdf:Bag><rdf:li rdf:parseType="Resource">
    <pdfaSchema:schema>PDF/UA Universal Accessibility Schema</pdfaSchema:schema>
    <pdfaSchema:namespaceURI>http://www.aiim.org/pdfua/ns/id/</pdfaSchema:namespaceURI>
    <pdfaSchema:prefix>pdfuaid</pdfaSchema:prefix>
    <pdfaSchema:property><rdf:Seq><rdf:li rdf:parseType="Resource">
      <pdfaProperty:name>part</pdfaProperty:name>
      <pdfaProperty:valueType>Integer</pdfaProperty:valueType>
      <pdfaProperty:category>internal</pdfaProperty:category>
      <pdfaProperty:description>Indicates, which part of ISO 14289 standard is followed</pdfaProperty:description>
    </rdf:li></rdf:Seq></pdfaSchema:property>
  </rdf:li></rdf:Bag></pdfaExtension:schemas>
</rdf:Description>`

/** The package writes title and author into its XML as they are: there they are written as XML asks. */
function sayInfoAsXml(doc: Doc): void {
  const inside = doc as unknown as { info: Record<string, unknown>; _addInfo: () => void }
  const say = inside._addInfo.bind(inside)
  inside._addInfo = () => {
    const kept = inside.info
    inside.info = Object.fromEntries(
      Object.entries(kept).map(([name, value]) => [name, typeof value === 'string' ? escaped(value) : value]),
    )
    say()
    inside.info = kept
  }
}

const escaped = (text: string): string => text.replace(/[&<>]/g, (c) => `&#${c.charCodeAt(0)};`)

/** Writes a text, each part of it in the first face that has its characters. Returns its height. */
function write(doc: Doc, face: OwnFace, size: number, color: string, text: string, p: Place): number {
  const parts = runs(text, face)
  doc.fontSize(size).fillColor(color)
  parts.forEach((part, i) => {
    const options = { width: p.width, align: p.align ?? ('left' as const), lineGap: 1, continued: i < parts.length - 1 }
    doc.font(part.face)
    if (i === 0) doc.text(part.text, p.x, p.y, options)
    else doc.text(part.text, options)
  })
  return measure(doc, face, size, text, p.width)
}

function measure(doc: Doc, face: OwnFace, size: number, text: string, width: number): number {
  const [first] = runs(text, face)
  return doc
    .font(first?.face ?? face)
    .fontSize(size)
    .heightOfString(
      runs(text, face)
        .map((r) => r.text)
        .join(''),
      { width, lineGap: 1 },
    )
}

function numberPages(doc: Doc, { foot, numbering: [page, of] = ['page', 'of'] }: Paper): void {
  const { start, count } = doc.bufferedPageRange()
  for (let i = start; i < start + count; i += 1) {
    doc.switchToPage(i)
    doc.markContent('Artifact', { type: 'Pagination' })
    doc.page.margins.bottom = 0
    doc
      .font('text')
      .fontSize(8)
      .fillColor(SECOND)
      .text(`${foot} · ${page} ${i + 1} ${of} ${count}`, MARGIN, 841.89 - 40, {
        width: WIDTH,
        align: 'right',
        lineBreak: false,
      })
    doc.endMarkedContent()
  }
}
