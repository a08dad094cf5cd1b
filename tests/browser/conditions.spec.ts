import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

/** A day so many days from now, as it is typed. */
function typed(days: number): string {
  const day = new Date(Date.now() + days * 86_400_000)
  return `${day.getDate()}.${day.getMonth() + 1}.${day.getFullYear()}`
}

test('a line is put aside and waits again; what was bought in a shop is ordered, and nothing is mailed', async ({
  browser,
}) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/desk')
  await alive(leonie)
  const line = leonie.getByRole('row', { name: /^Activated carbon/ }).first()
  await line.focus()
  await leonie.keyboard.press('Space')
  await leonie.getByRole('button', { name: /^Put “Activated carbon.*” aside for now$/ }).press('Enter')
  const dialog = leonie.getByRole('dialog')
  await expect(dialog.getByRole('heading', { name: /^Put “Activated carbon/ })).toBeVisible()
  // What is missing is led to, and nothing is put aside.
  await leonie.keyboard.press('Control+Enter')
  const until = dialog.getByRole('button', { name: /^The day on which it waits again/ })
  await expect(until).toBeFocused()
  await leonie.keyboard.type(typed(500))
  await leonie.keyboard.press('Enter')
  // The calendar may still be on its way: the day stands there before one goes on.
  await expect(until).toHaveAttribute('data-empty', 'false')
  await dialog.getByLabel('Why, for whoever asked for it').fill('Quotes are on their way')
  await leonie.keyboard.press('Control+Enter')
  await expect(dialog.getByRole('alert')).toContainText('at the latest')
  await until.focus()
  await leonie.keyboard.type(typed(10))
  await leonie.keyboard.press('Enter')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])
  await leonie.keyboard.press('Control+Enter')
  await expect(line).toHaveCount(0)
  await leonie.getByRole('button', { name: 'Whether they wait' }).click()
  await leonie.getByRole('option', { name: 'that are put aside' }).click()
  await expect(line).toContainText('Quotes are on their way')
  // What the address says stands there again, and nothing is marked.
  await leonie.reload()
  await alive(leonie)
  await expect(line).toHaveAttribute('aria-selected', 'false')
  await line.focus()
  await leonie.keyboard.press('Space')
  await leonie.getByRole('button', { name: /^Have “Activated carbon.*” wait again$/ }).click()
  await expect(line).toHaveCount(0)
  await leonie.goto('/desk')
  await alive(leonie)

  await line.focus()
  await leonie.keyboard.press('Enter')
  const tray = leonie.getByRole('region', { name: 'Tray for Northmole Water' }).last()
  await tray.getByRole('button', { name: 'Terms, expiry, or that it was placed already' }).press('Enter')
  await expect(dialog.getByRole('heading', { name: /^On which conditions Northmole Water/ })).toBeVisible()
  await dialog.getByRole('button', { name: /^Whether it was placed already/ }).click()
  await leonie.getByRole('option', { name: 'placed already' }).click()
  await leonie.keyboard.press('Control+Enter')
  await expect(dialog.getByLabel('The number under which it was placed')).toBeFocused()
  await leonie.keyboard.type('Till 4711/b')
  await dialog.getByRole('button', { name: /^Whether a confirmation is sent/ }).click()
  await leonie.getByRole('option', { name: 'nothing is sent' }).click()
  await dialog.getByRole('textbox', { name: 'Days of payment' }).fill('x')
  await expect(dialog.getByRole('button', { name: /^Say days of payment/ })).toBeVisible()
  await dialog.getByRole('textbox', { name: 'Days of payment' }).fill('0')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])
  // Held down, the key keeps it once.
  await leonie.keyboard.down('Control')
  await leonie.keyboard.down('Enter')
  await leonie.keyboard.down('Enter')
  await leonie.keyboard.up('Enter')
  await leonie.keyboard.up('Control')
  await expect(dialog).toHaveCount(0)
  await expect(tray).toContainText('Placed already as Till 4711/b; nothing is sent to Northmole Water')
  await tray.getByRole('button', { name: /^Issue it; nothing is sent/ }).click()
  await leonie.getByRole('link', { name: 'See the order', exact: true }).click()
  await expect(leonie.getByText('kept here: Northmole Water was not sent it')).toBeVisible()
  await expect(leonie.getByRole('button', { name: 'Ask them once more' })).toHaveCount(0)
  const number = (await leonie.getByRole('heading', { level: 1 }).locator('b').first().textContent()) ?? ''
  await leonie.goto(`/orders?words=${encodeURIComponent('till 4711')}`)
  await expect(leonie.getByRole('link', { name: number })).toBeVisible()
})
