import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

test('proposed orders are narrowed, one is left out, and the rest lies on trays with one press', async ({
  browser,
}) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/desk')
  await alive(leonie)
  const traysBefore = await leonie.getByRole('region', { name: /^Tray for/ }).count()
  await leonie.getByRole('link', { name: 'see the orders that Rekko would make of them' }).click()
  await expect(leonie.getByRole('heading', { level: 1 })).toHaveText(/^Rekko would make .* orders? of /)
  const rows = leonie.getByRole('checkbox', { name: /^Take the order to/ })
  const all = await rows.count()
  expect(all).toBeGreaterThan(1)
  await rows.first().focus()
  await leonie.keyboard.press('Space')
  await expect(rows.first()).not.toBeChecked()
  const lines = leonie.getByRole('button', { name: / lines?$/ }).first()
  await lines.click()
  await expect(lines).toHaveAttribute('aria-expanded', 'true')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])
  // An option stands in the address, and back leads to what was before.
  await leonie.getByRole('button', { name: 'How many requests to an order' }).click()
  await leonie.getByRole('option', { name: 'at most one request' }).click()
  await expect(leonie).toHaveURL(/mostRequests=1/)
  await expect.poll(() => rows.count()).toBeGreaterThanOrEqual(all)
  await leonie.reload()
  await alive(leonie)
  const count = await rows.count()
  await rows.first().uncheck()
  // Held down, they are laid once.
  await leonie.keyboard.down('Control')
  await leonie.keyboard.down('Enter')
  await leonie.keyboard.down('Enter')
  await leonie.keyboard.up('Enter')
  await leonie.keyboard.up('Control')
  await expect(leonie).toHaveURL(/\/desk$/)
  await expect(leonie.getByRole('region', { name: /^Tray for/ })).toHaveCount(traysBefore + count - 1)
  await leonie.getByRole('button', { name: 'Lay the lines back' }).click()
  await expect(leonie.getByRole('region', { name: /^Tray for/ })).toHaveCount(traysBefore)
})
