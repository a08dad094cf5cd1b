import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

const axe = async (page: Parameters<typeof alive>[0]) =>
  (await new AxeBuilder({ page }).analyze()).violations.map((v) => `${v.id}: ${v.nodes[0]?.html ?? ''}`)
async function openSupplier(page: Parameters<typeof alive>[0], name: string): Promise<void> {
  const { suppliers } = (await (await page.request.get(`/api/suppliers?words=${encodeURIComponent(name)}`)).json()) as {
    suppliers: { id: string; name: string }[]
  }
  await page.goto(`/suppliers/${suppliers.find((s) => s.name === name)?.id ?? ''}`)
  await alive(page)
}

test('bank details are asked for by keyboard and confirmed by somebody else; the supplier is told', async ({
  browser,
}) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await openSupplier(leonie, 'Vellacott Gases')
  const margin = leonie.getByRole('complementary')
  await expect(margin.getByText('An order would arrive; look at the rest.')).toBeVisible()
  await leonie.getByRole('button', { name: 'Enter bank details' }).press('Enter')
  const number = leonie.getByLabel('IBAN, or account number')
  await expect(number).toBeFocused()
  await leonie.keyboard.type('DE89 3704 0044 0532 0130 01')
  await leonie.keyboard.press('Control+Enter')
  await expect(leonie.getByText('This IBAN is not possible', { exact: false })).toBeVisible()
  await number.fill('DE89 3704 0044 0532 0130 00')
  // Held down, it asks once.
  await leonie.keyboard.down('Control')
  for (let i = 0; i < 4; i += 1) await leonie.keyboard.down('Enter')
  await leonie.keyboard.up('Enter')
  await leonie.keyboard.up('Control')
  await expect(leonie.getByText('orders@vellacott.example is told', { exact: false })).toBeVisible()
  await expect(leonie.getByRole('button', { name: 'Take it back' })).toBeVisible()
  await expect(leonie.getByRole('button', { name: /^Confirm/ })).toHaveCount(0)
  expect(await axe(leonie)).toEqual([])

  const greta = await pageAs(browser, 'Greta Molin')
  await openSupplier(greta, 'Vellacott Gases')
  await greta.getByRole('button', { name: /^Confirm/ }).click()
  await expect(greta.getByText('It is paid there from now on.')).toBeVisible()
  await expect(leonie.getByText('DE89 3704 0044 0532 0130 00, Vellacott Gases')).toBeVisible()
  await leonie.context().close()
  await greta.context().close()
})

test('on hold with a reason, which whoever looks for it reads; a paper is kept and taken away', async ({ browser }) => {
  const greta = await pageAs(browser, 'Greta Molin')
  await openSupplier(greta, 'Sallow Furniture')
  await greta.getByRole('button', { name: 'Put it on hold' }).click()
  await expect(greta.getByRole('dialog').getByLabel(/^Why/)).toBeFocused()
  await greta.keyboard.press('Control+Enter')
  await greta.keyboard.type('the chairs of spring are still missing')
  await greta.keyboard.press('Control+Enter')
  await expect(greta.getByRole('dialog')).toHaveCount(0)
  await expect(greta.getByRole('heading', { level: 1 })).toContainText('is on hold and cannot be asked for')
  await expect(greta.getByRole('complementary').getByText('An order would not arrive.')).toBeVisible()
  await greta.getByRole('button', { name: 'Let it be ordered from' }).click()
  await greta
    .getByRole('dialog')
    .getByRole('button', { name: /^Let it/ })
    .click()
  await expect(greta.getByRole('heading', { level: 1 })).toContainText('can be ordered from')

  const pdf = Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\n%%EOF')
  await greta.getByLabel('A paper about the supplier').setInputFiles({
    name: 'fire test.pdf',
    mimeType: 'application/pdf',
    buffer: pdf,
  })
  await expect(greta.getByRole('link', { name: 'fire test.pdf' })).toBeVisible()
  await greta.getByRole('button', { name: 'Take fire test.pdf away' }).click()
  await expect(greta.getByRole('link', { name: 'fire test.pdf' })).toHaveCount(0)
  await greta.context().close()
})

test('doubles are found, looked at and merged; what was merged says what it became', async ({ browser }) => {
  const greta = await pageAs(browser, 'Greta Molin')
  await greta.goto('/suppliers/doubles')
  await alive(greta)
  await expect(greta.getByRole('heading', { level: 1 })).toHaveText('One pair of suppliers may be one.')
  await greta.getByRole('button', { name: /Thornwick Fasteners instead of/ }).press('Enter')
  await expect(greta.getByRole('dialog').getByText('Nothing names Thornwick Fastening Co yet.')).toBeVisible()
  expect(await axe(greta)).toEqual([])
  await greta.keyboard.press('Control+Enter')
  await expect(greta.getByText('Thornwick Fastening Co is Thornwick Fasteners from now on.')).toBeVisible()
  await expect(greta.getByRole('heading', { level: 1 })).toHaveText('No supplier looks like another.')
  await greta.context().close()
})

test('a job says what it needs by keyboard, and raises what is open', async ({ browser }) => {
  const owen = await pageAs(browser, 'Owen Marsh')
  await owen.goto('/jobs')
  await alive(owen)
  await owen.getByRole('link', { name: 'Filter bank 3 overhaul' }).click()
  await owen.getByRole('button', { name: 'Say what it needs' }).press('Enter')
  const add = owen.getByLabel('Add a part')
  await add.focus()
  await owen.keyboard.type('4 sand boxes of our own 12.50')
  await owen.keyboard.press('Enter')
  await expect(owen.getByLabel('Quantity of sand boxes of our own')).toHaveValue('4')
  await expect(add).toBeFocused()
  await owen.keyboard.type('2 quartz sleeve')
  const offered = owen.getByRole('list', { name: 'From the catalogue' }).getByRole('button').first()
  await expect(offered).toContainText('uartz')
  await owen.keyboard.press('Tab')
  await owen.keyboard.press('Enter')
  await expect(owen.getByLabel(/^Quantity of .*uartz/)).toHaveValue('2')
  await owen.keyboard.press('Control+Enter')
  await expect(owen.getByRole('dialog')).toHaveCount(0)
  await expect(owen.getByRole('heading', { level: 1 })).toContainText('two parts, none of them asked for yet')
  expect(await axe(owen)).toEqual([])

  await owen.keyboard.press('Control+Enter')
  await expect(owen).toHaveURL(/\/raise\/./)
  await expect(owen.getByRole('textbox', { name: /^Line \d+: how many/ })).toHaveCount(2)
  await owen.goBack()
  await expect(owen.getByRole('heading', { level: 1 })).toContainText('all of them asked for')
  await expect(owen.getByRole('cell', { name: /4 on drafts/ })).toBeVisible()
  await owen.context().close()
})
