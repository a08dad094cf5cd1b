import PDFDocument from 'pdfkit'
import { addDays, dayOf } from '#core/base/day'
import type { ContactUse, DatedWarning } from '#core/supplier/record'
import type { Context } from '../server/context'
import { askBankChange, confirmBankChange } from '../server/supplier/change-bank'
import { changeStanding } from '../server/supplier/change-standing'
import { keepRecord } from '../server/supplier/keep-record'
import { addPaper } from '../server/supplier/papers'
import { SUPPLIER_ROWS } from './world/catalogue'

const idOf = (name: string): string => {
  const row = SUPPLIER_ROWS.find((s) => s.name === name)
  if (row === undefined) throw new Error(`no supplier ${name}`)
  return row.id
}
const NO_WARNING: DatedWarning = { text: '', mode: 'informs', from: null, until: null }
const contact = (name: string, about: ContactUse, email: string, telephone: string, address = '') => ({
  name,
  about,
  email,
  telephone,
  address,
})

/** A paper of one page, as suppliers send them. */
function paper(lines: readonly string[]): Promise<Buffer> {
  return new Promise((resolve) => {
    const pdf = new PDFDocument({ size: 'A4', margin: 72 })
    const parts: Buffer[] = []
    pdf.on('data', (part: Buffer) => parts.push(part))
    pdf.on('end', () => {
      resolve(Buffer.concat(parts))
    })
    for (const line of lines) pdf.text(line).moveDown()
    pdf.end()
  })
}

/**
 * What buyers and finance keep of suppliers: who is spoken to, papers of which one ends soon and one has ended,
 * accounts that two people entered, one change that waits, and one supplier on hold.
 */
export async function keepSupplierRecords(
  as: <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>,
  now: Date,
  timeZone: string,
): Promise<void> {
  const today = dayOf(now, timeZone)
  const ago = (days: number, hours = 0) => new Date(now.getTime() - (days * 24 + hours) * 3_600_000)

  await as('Leonie Farrow', ago(40), (ctx) =>
    keepRecord(ctx, idOf('Corrigan Pumps'), 1, {
      contacts: [
        contact('Aurelio Finch', 'orders', 'aurelio@corrigan-pumps.example', '0100 62 110'),
        contact('Accounts', 'bills', 'accounts@corrigan-pumps.example', '', 'PO Box 12, Eastmoor'),
        contact('Wilma Tarn', 'returns', '', '0100 62 118', 'Gate 4, Mill Road, Eastmoor'),
      ],
      warning: NO_WARNING,
    }),
  )
  await as('Leonie Farrow', ago(9), (ctx) =>
    keepRecord(ctx, idOf('Kestrel Diving Works'), 1, {
      contacts: [contact('Signy Hallett', 'anything', 'signy@kestrel.example', '0100 71 004')],
      warning: {
        text: 'closed between the years: nothing is serviced then',
        mode: 'informs',
        from: addDays(today, 21),
        until: addDays(today, 38),
      },
    }),
  )

  for (const [name, title, until] of [
    ['Corrigan Pumps', 'Public liability insurance.pdf', addDays(today, 19)],
    ['Corrigan Pumps', 'Pressure equipment certificate.pdf', addDays(today, 410)],
    ['Kestrel Diving Works', 'Certificate of the test house.pdf', addDays(today, -6)],
    ['Harbour Waste', 'Permit to carry waste.pdf', addDays(today, 26)],
  ] as const) {
    const bytes = await paper([title.replace(/\.pdf$/, ''), name, `in force until ${until}`])
    await as('Leonie Farrow', ago(30), (ctx) => addPaper(ctx, idOf(name), bytes, { name: title, validUntil: until }))
  }

  for (const [name, number] of [
    ['Corrigan Pumps', 'DE89370400440532013000'],
    ['Brackwater Salts', 'DK5000400440116243'],
  ] as const) {
    const id = idOf(name)
    await as('Leonie Farrow', ago(39), (ctx) => askBankChange(ctx, id, { holder: name, number, bank: '' }))
    await as('Greta Molin', ago(38), (ctx) => confirmBankChange(ctx, id, number))
  }
  await as('Leonie Farrow', ago(0, 3), (ctx) =>
    askBankChange(ctx, idOf('Larkfield Veterinary'), {
      holder: 'Larkfield Veterinary',
      number: 'NL91ABNA0417164300',
      bank: '',
    }),
  )
  const ottermouth = idOf('Ottermouth Boatyard')
  await as('Greta Molin', ago(12), (ctx) =>
    changeStanding(ctx, ottermouth, 1, {
      to: 'on hold',
      reason: 'their insurance of the slipway ended; they send the new one in January',
      until: addDays(today, 50),
    }),
  )
}
