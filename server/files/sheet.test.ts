import { parse } from 'csv-parse/sync'
import ExcelJS from 'exceljs'
import fc from 'fast-check'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import readXlsxFile from 'read-excel-file/node'
import { describe, expect, test } from 'vitest'
import { safeCell } from '#shared/words/cell'
import { Problem } from '../http/problem'
import { readSheet } from './read-sheet'
import { writeCsv, writeXlsx } from './write-sheet'

const text = (s: string) => Buffer.from(s)
const refusal = async (bytes: Buffer) => {
  const e: unknown = await readSheet(bytes).then(
    () => null,
    (x: unknown) => x,
  )
  return e instanceof Problem ? { status: e.status, detail: e.detail } : e
}
async function xlsx(rows: ExcelJS.CellValue[][], sheets = 1): Promise<Buffer> {
  const book = new ExcelJS.Workbook()
  for (let i = 1; i <= sheets; i += 1) {
    const sheet = book.addWorksheet(`Sheet ${i}`)
    for (const r of i === 1 ? rows : []) sheet.addRow(r)
  }
  return Buffer.from(await book.xlsx.writeBuffer())
}

describe('CSV is read', () => {
  // The cases of RFC 4180, section 2, rules 1 to 7.
  test.each([
    [
      'a,b\r\nc,d\r\n',
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
    ],
    [
      'a,b\r\nc,d',
      [
        ['a', 'b'],
        ['c', 'd'],
      ],
    ],
    [
      '"a","b b"\r\nc,d',
      [
        ['a', 'b b'],
        ['c', 'd'],
      ],
    ],
    [
      '"a\r\nx","b,y"\r\nc,d',
      [
        ['a\r\nx', 'b,y'],
        ['c', 'd'],
      ],
    ],
    ['"a""a",b', [['a"a', 'b']]],
    [
      'a,,c\r\n,b,',
      [
        ['a', '', 'c'],
        ['', 'b'],
      ],
    ],
  ])('by RFC 4180: %j', async (csv, rows) => {
    expect((await readSheet(text(csv))).rows).toEqual(rows)
  })
  test.each([
    [
      'semicolons',
      'What;Qty\nHose, blue;2\nRope, red;3',
      [
        ['What', 'Qty'],
        ['Hose, blue', '2'],
        ['Rope, red', '3'],
      ],
    ],
    [
      'tabs',
      'What\tQty\nHose\t2',
      [
        ['What', 'Qty'],
        ['Hose', '2'],
      ],
    ],
    [
      'bars',
      'What|Qty\nHose|2',
      [
        ['What', 'Qty'],
        ['Hose', '2'],
      ],
    ],
    [
      'a mark in front',
      '\ufeffWhat,Qty\nHose,2',
      [
        ['What', 'Qty'],
        ['Hose', '2'],
      ],
    ],
    ['one column', 'Hose\nRope', [['Hose'], ['Rope']]],
    ['rows of different length and empty ends', 'a,b,c\nd\n,,\n\n', [['a', 'b', 'c'], ['d']]],
  ])('with %s', async (_, csv, rows) => {
    expect((await readSheet(text(csv))).rows).toEqual(rows)
  })
  test('in UTF-16 and in Windows-1252, which is said', async () => {
    const wide = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('Was,Menge\nÖse,2', 'utf16le')])
    expect(await readSheet(wide)).toEqual({
      rows: [
        ['Was', 'Menge'],
        ['Öse', '2'],
      ],
      notes: [],
    })
    const old = await readSheet(Buffer.from('Was,Menge\n\xd6se,2', 'latin1'))
    expect(old.rows[1]).toEqual(['Öse', '2'])
    expect(old.notes[0]).toContain('Windows-1252')
  })
})

describe('a file that cannot be read is refused with a sentence', () => {
  test.each([
    ['a quotation mark that never closes', text('a,b\n"c,d\ne,f'), 422, 'a quotation mark is never closed'],
    ['a quotation mark inside', text('a,b\nc"x,d'), 422, 'quotation mark'],
    ['nothing', text(''), 422, 'empty'],
    ['blanks only', text(' \n\n'), 422, 'no row'],
    ['a program', Buffer.concat([text('\x7fELF\x02\x01\x01'), Buffer.alloc(64)]), 415, 'neither a CSV nor an XLSX'],
    ['a PDF', text('%PDF-1.7\n\u0001\u0002binary'), 415, 'neither'],
    ['a zip that is no sheet', text('PK\u0003\u0004 and nothing more'), 422, 'broken'],
    ['too many rows', text('a\n'.repeat(5001)), 422, '5,000 rows'],
    ['too many columns', text('x,'.repeat(80) + 'y'), 422, '60 columns'],
    ['too many bytes', Buffer.alloc(4 * 1024 * 1024 + 1, 'a'), 413, '4 MB'],
  ])('%s', async (_, bytes, status, words) => {
    expect(await refusal(bytes)).toEqual({ status, detail: expect.stringContaining(words) as string })
  })
  test('a zip that unpacks to more than we take, whatever it says of itself', async () => {
    const entries = unzipSync(await xlsx([['a']]))
    const bomb = Buffer.from(zipSync({ ...entries, 'xl/more.xml': new Uint8Array(90 * 1024 * 1024) }))
    expect(bomb.length).toBeLessThan(1024 * 1024)
    expect(await refusal(bomb)).toMatchObject({ status: 413 })
    const directory = bomb.lastIndexOf('PK\u0001\u0002', bomb.length, 'latin1')
    bomb.writeUInt32LE(1, directory + 24)
    expect(await refusal(bomb)).toMatchObject({ status: 413 })
  })
})

describe('merged cells', () => {
  const merged = async (...ranges: string[]) => {
    const entries = unzipSync(await xlsx([['Lamps', 'two'], ['x'], ['y']]))
    const name = 'xl/worksheets/sheet1.xml'
    const merges = ranges.map((ref) => `<mergeCell ref="${ref}"/>`).join('')
    const text = strFromU8(entries[name] ?? new Uint8Array()).replace(
      '</sheetData>',
      `</sheetData><mergeCells count="${ranges.length}">${merges}</mergeCells>`,
    )
    return readSheet(Buffer.from(zipSync({ ...entries, [name]: strToU8(text) })))
  }
  test('each says what the first of them does', async () => {
    expect(await merged('A1:A3')).toEqual({ rows: [['Lamps', 'two'], ['Lamps'], ['Lamps']], notes: [] })
  })
  test('where they cover too much, alone or together, each is its first cell, and it is said', async () => {
    const apart = Array.from({ length: 60 }, (_, i) => `A${i * 100 + 10}:Z${i * 100 + 99}`)
    for (const ranges of [['A1:XFD1048576'], ['B1:A1048576'], ['A1:A3', ...apart]]) {
      const { rows, notes } = await merged(...ranges)
      expect(rows).toEqual([['Lamps', 'two'], ['x'], ['y']])
      expect(notes).toEqual(['Merged cells cover too much of it: each was read as its first cell alone.'])
    }
  })
})

describe('XLSX is read', () => {
  test('numbers without their binary rest, days, rich and linked texts, and the first sheet alone', async () => {
    const day = new Date(Date.UTC(2026, 10, 25))
    const rich = { richText: [{ text: 'Ho' }, { text: 'se' }] }
    const { rows, notes } = await readSheet(
      await xlsx(
        [
          ['What', 'Price', 'Day'],
          [rich, 0.1 + 0.2, day],
          [{ text: 'Rope', hyperlink: 'https://rope.example' }, 1420, null],
        ],
        2,
      ),
    )
    expect(rows).toEqual([
      ['What', 'Price', 'Day'],
      ['Hose', '0.3', '2026-11-25'],
      ['Rope', '1420'],
    ])
    expect(notes).toEqual(['Only the first of 2 sheets, “Sheet 1”, was read.'])
  })
  test('formulas as what they last came to, which is said', async () => {
    const { rows, notes } = await readSheet(
      await xlsx([
        ['Hose', { formula: '2*3', result: 6 }],
        ['Rope', { formula: 'HYPERLINK("https://evil.example")', result: 'click' }],
      ]),
    )
    expect(rows).toEqual([
      ['Hose', '6'],
      ['Rope', 'click'],
    ])
    expect(notes).toEqual(['2 formulas were read as what they last came to.'])
  })
})

describe('exports', () => {
  // What spreadsheets run when they open a file: OWASP, CSV injection.
  test.each([
    ['=1+1', "'=1+1"],
    ['+cmd', "'+cmd"],
    ['-2+3', "'-2+3"],
    ['@SUM(A1)', "'@SUM(A1)"],
    ['\tx', "'\tx"],
    ['-12.50', '-12.50'],
    ['Hose = 2', 'Hose = 2'],
    ['', ''],
  ])('a cell %j is written as %j', (from, to) => {
    expect(safeCell(from)).toBe(to)
  })

  test('CSV is read back the same by a parser from the registry, also with empty last cells (property)', () => {
    const cell = fc.string({ unit: 'grapheme', maxLength: 20 }).filter((s) => safeCell(s) === s)
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, fc.constantFrom('', 'x')), { minLength: 1, maxLength: 20 }), (rows) => {
        const bytes = writeCsv({ name: 'T', head: ['a', 'b', 'c'], rows })
        expect(parse(bytes, { bom: true })).toEqual([['a', 'b', 'c'], ...rows])
      }),
    )
    expect(writeCsv({ name: 'T', head: ['a', 'b'], rows: [['x', null]] }).toString()).toBe('\ufeffa,b\r\nx,\r\n')
  })
  test('XLSX opens in a reader from the registry, decimals as numbers and nothing as a formula', async () => {
    const bytes = await writeXlsx({
      name: 'Mine',
      head: ['What', 'Amount'],
      rows: [
        ['Rope', { decimal: '1420.50' }],
        ['=HYPERLINK("x")', null],
      ],
    })
    expect(await readXlsxFile(bytes)).toEqual([
      {
        sheet: 'Mine',
        data: [
          ['What', 'Amount'],
          ['Rope', 1420.5],
          ['\'=HYPERLINK("x")', null],
        ],
      },
    ])
  })
})
