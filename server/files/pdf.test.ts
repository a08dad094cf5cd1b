import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { XMLValidator } from 'fast-xml-parser'
import { encode } from 'uqr'
import { expect, it } from 'vitest'
import { code, title, words, type Paper } from './paper'
import { makePdf } from './pdf'

const folder = mkdtempSync(join(tmpdir(), 'rekko-pdf-'))
async function made(name: string, more: Partial<Paper> = {}): Promise<string> {
  const paper: Paper = {
    ...{ title: 'Order 7', author: 'Hull & Daughters <Ltd>', foot: '7', at: new Date('2026-11-25T12:00:00Z') },
    blocks: [title('Order 7'), words('Two lamps')],
    ...more,
  }
  const path = join(folder, `${name}.pdf`)
  writeFileSync(path, await makePdf(paper, process.cwd()))
  return path
}
const says = (command: string, ...given: string[]) => spawnSync(command, given, { encoding: 'utf8' }).stdout

it('says in well-formed metadata that it is PDF/A-3a and PDF/UA-1, whatever the organisation is called', async () => {
  const path = await made('metadata')
  expect(spawnSync('qpdf', ['--check', path]).status).toBe(0)
  const meta = says('pdfinfo', '-meta', path)
  const xml = meta.slice(meta.indexOf('<x:xmpmeta'), meta.indexOf('</x:xmpmeta>') + '</x:xmpmeta>'.length)
  expect(XMLValidator.validate(xml)).toBe(true)
  expect(xml).toMatch(/<pdfaid:part>3<\/pdfaid:part>\s*<pdfaid:conformance>A</)
  expect(xml).toContain('<pdfuaid:part>1</pdfuaid:part>')
  expect(xml).toContain('Hull &#38; Daughters &#60;Ltd&#62;')
  expect(says('pdfinfo', path)).toMatch(/Author:\s+Hull & Daughters <Ltd>/)
})

it('holds the same for machines, as it was given', async () => {
  const text = '<Order>äöü</Order>'
  const path = await made('inside', { files: [{ name: '7.xml', mime: 'text/xml', description: 'UBL', text }] })
  expect(says('pdfdetach', '-list', path)).toContain('7.xml')
  const out = join(folder, 'out.xml')
  spawnSync('pdfdetach', ['-save', '1', '-o', out, path])
  expect(readFileSync(out, 'utf8')).toBe(text)
  expect(readFileSync(path, 'latin1')).toContain('/AFRelationship /Alternative')
})

it('names the head of a table as one, once, also over several pages', async () => {
  const rows = Array.from({ length: 80 }, (_, i) => [`Thing ${i}`, '1'])
  const columns = [
    { name: 'What', x: 0, width: 300, align: 'left' as const },
    { name: 'Many', x: 300, width: 100, align: 'right' as const },
  ]
  const path = await made('table', { blocks: [{ is: 'table', columns, rows }] })
  const tree = says('pdfinfo', '-struct', path)
  expect(tree.match(/^\s*TH/gm)).toHaveLength(2)
  expect(tree.match(/^\s*TD/gm)).toHaveLength(160)
  // For the eye it stands on every page.
  const pages = Number(/Pages:\s+(\d+)/.exec(says('pdfinfo', path))?.[1])
  expect(pages).toBeGreaterThan(1)
  expect(says('pdftotext', path, '-').match(/^\f?What$/gm)).toHaveLength(pages)
})

it('is in the language of whom it is for, and shows a camera where the order is found', async () => {
  const address = 'https://buying.example/orders/7'
  const blocks = [title('Bestellung 7'), code(address, 'Beim Eintreffen')]
  const path = await made('code', { language: 'de', numbering: ['Seite', 'von'], blocks })
  expect(spawnSync('qpdf', ['--check', path]).status).toBe(0)
  expect(says('pdftotext', path, '-')).toContain('7 · Seite 1 von 1')
  const qdf = spawnSync('qpdf', ['--qdf', '--object-streams=disable', path, '-']).stdout.toString('latin1')
  expect(qdf).toContain('/Lang (de)')
  expect(says('pdfinfo', '-struct', path)).toMatch(/Figure/)
  // As many squares as the code has dark ones: ISO/IEC 18004 gives a symbol of this length 29 by 29 places.
  const { data, size } = encode(address, { ecc: 'M', border: 0 })
  expect(size).toBe(29)
  expect(qdf.match(/ re$/gm)?.length).toBe(data.flat().filter(Boolean).length)
})
