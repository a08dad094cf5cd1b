import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

test('an order above its buyer’s limit is sent, asked about, answered, approved, and issues itself', async ({
  browser,
}) => {
  // One waits in the demo already: its buyer takes it back, and sends it again by keyboard.
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/desk')
  await alive(leonie)
  const tray = leonie.getByRole('region', { name: 'Tray for Silverquay Acrylics' })
  await expect(tray).toContainText('Waits for Harriet Voss')
  await expect(tray.getByRole('button', { name: /^Take .* off the tray$/ })).toHaveCount(0)
  await tray.getByRole('button', { name: 'Take it back to change it' }).click()
  await expect(tray).toContainText('Your ordering limit is EUR 3,000.00')
  await tray.getByRole('checkbox', { name: 'issue it as soon as it is approved' }).focus()
  await leonie.keyboard.press('Control+Enter')
  await expect(tray).toContainText('Waits for Harriet Voss')

  const harriet = await pageAs(browser, 'Harriet Voss')
  await harriet.goto('/decide')
  await alive(harriet)
  await harriet
    .getByRole('navigation', { name: 'What waits for you' })
    .getByRole('link', { name: /order to Silverquay Acrylics/ })
    .click()
  await expect(harriet.getByRole('heading', { level: 1 })).toContainText('Leonie Farrow wants to order')
  await expect(harriet.getByText('Leonie Farrow may order up to EUR 3,000.00 alone.')).toBeVisible()
  // What it is for was approved: it is sent back or approved, and not rejected.
  await expect(harriet.getByRole('button', { name: /^Reject/ })).toHaveCount(0)
  expect((await new AxeBuilder({ page: harriet }).analyze()).violations).toEqual([])
  await harriet.getByRole('textbox', { name: 'Ask, answer or leave a reason' }).fill('Is the panel cast or extruded?')
  await harriet.keyboard.press('Control+Enter')
  await expect(tray).toContainText('Harriet Voss asks: “Is the panel cast or extruded?”')
  await tray.getByRole('textbox', { name: 'Answer about the order to Silverquay Acrylics' }).fill('Cast.')
  await leonie.keyboard.press('Enter')
  await expect(tray).not.toContainText('asks:')
  await expect(harriet.getByText('Cast.', { exact: true })).toBeVisible()
  await harriet.locator('#page').focus()
  await harriet.keyboard.press('Control+Enter')
  await expect(harriet.getByText('Approved: order to Silverquay Acrylics, Leonie Farrow.')).toBeVisible()
  await expect(tray).toContainText('Approved')
  // Once nobody can take it back any more it is issued, without another press.
  await expect(tray).toHaveCount(0, { timeout: 40_000 })
  await leonie.goto('/orders')
  await expect(leonie.getByRole('row', { name: /Silverquay Acrylics/ }).first()).toContainText(/P-\d\d-\d{5}/)
  await Promise.all([leonie, harriet].map((p) => p.context().close()))
})
