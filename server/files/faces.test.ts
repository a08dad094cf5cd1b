import { spawnSync } from 'node:child_process'
import { expect, test } from 'vitest'
import { runs, unseenSigns } from './faces'
import { words } from './paper'
import { makePdf } from './pdf'

const SCRIPTS = {
  Chinese: '石英套管 25 毫米',
  Japanese: '石英スリーブ、ひらがな',
  Korean: '석영 슬리브',
  Hindi: 'क्वार्ट्ज आस्तीन',
  Arabic: 'كم كوارتز',
  Hebrew: 'שרוול קוורץ',
  Russian: 'Кварцевая гильза',
  Greek: 'Χιτώνιο χαλαζία',
}

test.each(Object.entries(SCRIPTS))('%s has a face, and nothing of it is lost', (_, text) => {
  expect(unseenSigns(text)).toEqual([])
  expect(
    runs(text, 'text')
      .map((r) => r.text)
      .join(''),
  ).toBe(text)
})

test('blanks of every width are plain ones, which every face has: French figures have them', () => {
  const figures = new Intl.NumberFormat('fr-FR').format(1_656_000)
  expect(figures).toContain('\u202f')
  expect(runs(figures, 'text')).toEqual([{ face: 'text', text: '1\u00a0656\u00a0000' }])
  expect(unseenSigns(`${figures}\u2003\u3000`)).toEqual([])
})

test('what no face has is named once, and a white square stands for it', () => {
  expect(unseenSigns('salt 𓀀𓀀 and ᚠ')).toEqual(['𓀀', 'ᚠ'])
  expect(
    runs('salt 𓀀', 'text')
      .map((r) => r.text)
      .join(''),
  ).toBe('salt □')
})

// Read back with pdftotext and pdffonts (poppler, from Debian).
test('a PDF carries them, and of each face what is used and no more', async () => {
  const { Chinese, Japanese, Korean, Russian } = SCRIPTS
  const texts = [Chinese, Japanese, Korean, Russian]
  const about = { title: 't', author: 'a', foot: 'f', at: new Date('2026-11-26T12:00:00Z') }
  const pdf = await makePdf({ ...about, blocks: texts.map((t) => words(t, 4)) }, process.cwd())
  const read = spawnSync('pdftotext', ['-', '-'], { input: pdf, encoding: 'utf8' }).stdout.normalize('NFKC')
  for (const text of texts) expect(read).toContain(text.normalize('NFKC'))
  expect(pdf.length).toBeLessThan(300_000)
})
