import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

/** A day so many days from now, as it is typed. */
function typed(days: number): string {
  const day = new Date(Date.now() + days * 86_400_000)
  return `${day.getDate()}.${day.getMonth() + 1}.${day.getFullYear()}`
}

test('a part of a blanket order is called off by keyboard, changed, and cancelled; what is left is given back', async ({
  browser,
}) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/orders?sort=blanket')
  await alive(leonie)
  const listed = leonie.getByRole('row').filter({ hasText: 'Mistral Chandlery' })
  await expect(listed).toContainText('blanket order')
  await listed.getByRole('link').press('Enter')
  await leonie.waitForURL(/\/orders\/[0-9a-f-]{36}$/)
  await alive(leonie)
  const blanketAt = leonie.url()
  const rope = leonie.getByRole('row', { name: /^Mooring rope/ })
  await expect(rope).toContainText('100 metre')
  await leonie.getByRole('button', { name: 'Call a part of it off' }).press('Enter')
  const many = leonie.getByRole('textbox', { name: 'How many of Mooring rope, 16 mm, polyester' })
  await expect(many).toBeFocused()
  const main = leonie.locator('.main-action')
  await expect(main).toContainText('Say how much is called off')

  // More than is left is said at once; letters are no number; and the day is led to.
  await leonie.keyboard.type('120')
  await expect(leonie.getByText('Of “Mooring rope, 16 mm, polyester” 100 metre can be called off.')).toBeVisible()
  await many.fill('ten')
  await expect(leonie.getByText('“ten” is no number.')).toBeVisible()
  await many.fill('40')
  await leonie.getByRole('textbox', { name: 'Amount of Yard work as it is needed in EUR' }).fill('110.50')
  await leonie.keyboard.press('Control+Enter')
  const when = leonie.getByRole('button', { name: /^By when it is needed/ })
  await expect(when).toBeFocused()
  // What is typed outlives the page.
  await leonie.reload()
  await alive(leonie)
  await leonie.getByRole('button', { name: 'Call a part of it off' }).press('Enter')
  await expect(many).toHaveValue('40')
  await when.focus()
  await leonie.keyboard.type(typed(12))
  await leonie.keyboard.press('Enter')
  await expect(when).toHaveAttribute('data-empty', 'false')
  await expect(main).toContainText('236.50')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])

  // Held down, the key calls it off once.
  await leonie.keyboard.down('Control')
  await leonie.keyboard.down('Enter')
  await leonie.keyboard.down('Enter')
  await leonie.keyboard.up('Enter')
  await leonie.keyboard.up('Control')
  await expect(leonie.getByRole('status')).toContainText('is on its way to Mistral Chandlery')
  const calls = leonie.getByRole('region', { name: 'What is called off' })
  await expect(calls).toContainText('Three call-offs')
  await expect(rope).toContainText('60 metre')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])

  // It is an order of its own, and cancelled as one: what it called off is left again.
  await calls.getByRole('row').nth(1).getByRole('link').click()
  await expect(leonie.getByText('which holds its money')).toBeVisible()
  await alive(leonie)
  await leonie.getByRole('button', { name: 'Change or cancel it' }).click()
  await leonie.getByRole('button', { name: 'Take every line off, which cancels the order' }).click()
  await leonie.getByLabel('Why, for colleagues').fill('The hatch holds')
  await leonie.getByRole('button', { name: /^Cancel P-/ }).click()
  await expect(leonie.getByText('It is cancelled: nothing of it is to be delivered')).toBeVisible()

  // The blanket order goes down to what is called off, and no further.
  await leonie.goto(blanketAt)
  await alive(leonie)
  await expect(rope).toContainText('100 metre')
  await leonie.getByRole('button', { name: 'Change or cancel it' }).click()
  const ordered = leonie.getByRole('textbox', { name: 'How many of Mooring rope, 16 mm, polyester' })
  await ordered.fill('139')
  await expect(leonie.getByText(/140 metre are called off already/)).toBeVisible()
  await leonie.getByRole('button', { name: 'Give back what is left of Mooring rope, 16 mm, polyester' }).click()
  await expect(ordered).toHaveValue('140')
  await leonie.getByLabel('Why, for colleagues').fill('No more rope this winter')
  await leonie.getByRole('button', { name: /^Send revision 1/ }).click()
  await expect(leonie.getByRole('status')).toContainText('Revision 1')
  await expect(rope).toContainText('0 metre')
})

test('a tray becomes a blanket order once its last day is said', async ({ browser }) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/desk')
  await alive(leonie)
  await leonie
    .getByRole('row', { name: /^Shaft seal kit/ })
    .first()
    .focus()
  await leonie.keyboard.press('Enter')
  const tray = leonie.getByRole('region', { name: 'Tray for Corrigan Pumps' }).last()
  await tray.getByRole('button', { name: 'Terms, expiry, or that it was placed already' }).press('Enter')
  const dialog = leonie.getByRole('dialog')
  await expect(dialog.getByRole('heading', { name: /^On which conditions/ })).toBeVisible()
  await dialog.getByRole('button', { name: /^How long it may be delivered/ }).click()
  await leonie.getByRole('option', { name: 'in parts, as they are called off, until' }).click()
  await leonie.keyboard.press('Control+Enter')
  const until = dialog.getByRole('button', { name: /^The last day on which it may come/ })
  await expect(until).toBeFocused()
  await leonie.keyboard.type(typed(100))
  await leonie.keyboard.press('Enter')
  await expect(until).toHaveAttribute('data-empty', 'false')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])
  await leonie.keyboard.press('Control+Enter')
  await expect(dialog).toHaveCount(0)
  await expect(tray).toContainText('blanket order, called off in parts until')
  // Said anew it is no blanket order any more, and its last day is still there.
  await tray.getByRole('button', { name: 'Terms, expiry, or that it was placed already' }).press('Enter')
  await dialog.getByRole('button', { name: /^How long it may be delivered/ }).click()
  await leonie.getByRole('option', { name: 'until', exact: true }).click()
  await leonie.keyboard.press('Control+Enter')
  await expect(dialog).toHaveCount(0)
  await expect(tray).toContainText('to be delivered until')
  await tray.getByRole('button', { name: 'Put this tray away; its lines go back' }).click()
  await expect(leonie.getByText('The tray for Corrigan Pumps is put away.')).toBeVisible()
})
