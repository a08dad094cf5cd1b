import { strToU8, zipSync } from 'fflate'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { freeLine, raise, soundDraft, startRekko, type Client, type Rekko } from '../setup/rekko'

let rekko: Rekko
let owen: Client
beforeAll(async () => {
  rekko = await startRekko()
  owen = await rekko.as('Owen Marsh')
})
afterAll(() => rekko.stop())

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main'
const REL = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships'
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006'
/** A spreadsheet (ECMA-376) of one sheet with these elements in it. */
function sheet(inside: string): Buffer {
  const parts = {
    '[Content_Types].xml': `<Types xmlns="${PACKAGE}/content-types">
      <Default Extension="xml" ContentType="application/xml"/>
      <Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/></Types>`,
    '_rels/.rels': `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="r1"
      Type="${REL}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml': `<workbook xmlns="${MAIN}" xmlns:r="${REL}"><sheets><sheet name="One" sheetId="1" r:id="r1"/>
      </sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="r1"
      Type="${REL}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
    'xl/worksheets/sheet1.xml': `<worksheet xmlns="${MAIN}">${inside}</worksheet>`,
  }
  return Buffer.from(zipSync(Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, strToU8(text)]))))
}
const cell = (at: string) => `<c r="${at}" t="str"><v>x</v></c>`
const FIRST = `<sheetData><row r="1">${cell('A1')}</row></sheetData>`
const ALL = 'A1:XFD1048576'

/** Every entry of a zip says that it is as large as one byte. */
function lying(zip: Buffer): Buffer {
  for (const mark of ['PK\u0001\u0002', 'PK\u0003\u0004'])
    for (let at = zip.indexOf(mark, 0, 'latin1'); at >= 0; at = zip.indexOf(mark, at + 4, 'latin1'))
      zip.writeUInt32LE(1, at + (mark === 'PK\u0001\u0002' ? 24 : 22))
  return zip
}

/** What it costs is none of its cells: it is read all the same. */
const HARMLESS = ['merged over the whole sheet', 'columns that span the sheet', 'a validation over the whole sheet']
const HOSTILE: [string, () => Buffer][] = [
  ['merged over the whole sheet', () => sheet(`${FIRST}<mergeCells><mergeCell ref="${ALL}"/></mergeCells>`)],
  ['columns that span the sheet', () => sheet(`<cols><col min="1" max="2147483647" width="9"/></cols>${FIRST}`)],
  [
    'a validation over the whole sheet',
    () =>
      sheet(
        `${FIRST}<dataValidations><dataValidation type="whole" sqref="${ALL}"><formula1>1</formula1></dataValidation>` +
          `</dataValidations>`,
      ),
  ],
  [
    'rows without end',
    () => sheet(`<sheetData>${Array.from({ length: 780_000 }, (_, i) => `<row r="${i + 1}"/>`).join('')}</sheetData>`),
  ],
  ['a directory that lies', () => lying(sheet(`${FIRST}<!--${' '.repeat(150_000_000)}-->`))],
]

test.each(HOSTILE)(
  'a spreadsheet with %s is read or refused with a sentence, and holds nobody up',
  async (what, make) => {
    const raw = make()
    // Making it held this process up: connections that the server closed meanwhile are noticed first.
    await new Promise((r) => {
      setTimeout(r, 200)
    })
    expect(raw.length).toBeLessThan(4 * 1024 * 1024)
    const before = rekko.memory()
    const reading = owen.call<{ detail?: string; rows?: string[][] }>('POST', '/api/line-files', {
      raw,
      headers: { 'content-type': 'application/octet-stream' },
    })
    let answered = 0
    let isDone = false
    void reading.finally(() => {
      isDone = true
    })
    while (!isDone) {
      expect((await owen.call('GET', '/api/session')).status).toBe(200)
      answered += 1
    }
    const { status, body } = await reading
    expect([200, 413, 422]).toContain(status)
    if (status !== 200) expect(body.detail).toMatch(/\.$/)
    if (HARMLESS.includes(what)) expect([status, body.rows]).toEqual([200, [['x']]])
    expect(answered).toBeGreaterThan(0)
    expect(rekko.memory() - before).toBeLessThan(100_000_000)
  },
)

test('what is honest is read whole: five thousand rows of ten cells, and a lone cell far below', async () => {
  const row = (r: number) => `<row r="${r}">${[...'ABCDEFGHIJ'].map((c) => cell(`${c}${r}`)).join('')}</row>`
  for (const rows of [
    Array.from({ length: 5000 }, (_, i) => row(i + 1)).join(''),
    `<row r="5000">${cell('BH5000')}</row>`,
  ]) {
    const r = await owen.call<{ rows: string[][] }>('POST', '/api/line-files', {
      raw: sheet(`<sheetData>${rows}</sheetData>`),
      headers: { 'content-type': 'application/octet-stream' },
    })
    expect([r.status, r.body.rows.length, r.body.rows.at(-1)?.at(-1)]).toEqual([200, 5000, 'x'])
  }
})

test('five hundred lines in many scripts become a PDF, or a sentence, beside others who are served', async () => {
  const many = 'Ventil 阀门 밸브 वाल्व клапан صمام שסתום 🔧'
  const lines = Array.from({ length: 500 }, (_, i) => freeLine('1', { description: `${many} ${i}` }))
  const draft = await raise(owen, { ...soundDraft([]), lines })
  const before = rekko.memory()
  const pdf = fetch(`${rekko.url}/api/requisitions/${draft.id}/pdf`, { headers: { cookie: owen.cookie } })
  expect((await owen.call('GET', '/api/session')).status).toBe(200)
  const r = await pdf
  expect([200, 422]).toContain(r.status)
  const bytes = Buffer.from(await r.arrayBuffer())
  expect(bytes.subarray(0, 4).toString('latin1')).toBe(r.status === 200 ? '%PDF' : '{"ty')
  expect(rekko.memory() - before).toBeLessThan(150_000_000)
})
