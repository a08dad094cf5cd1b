import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

test('an agreement is entered by keyboard, and an order is said to draw on it', async ({ browser }) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/agreements')
  await alive(leonie)
  // Held down, the key opens one form.
  await leonie.keyboard.down('Control')
  await leonie.keyboard.down('Enter')
  await leonie.keyboard.down('Enter')
  await leonie.keyboard.up('Enter')
  await leonie.keyboard.up('Control')
  const form = leonie.getByRole('dialog', { name: 'A framework agreement' })
  await expect(form.getByRole('heading', { name: 'A framework agreement' })).toBeVisible()
  await expect(form.getByRole('button', { name: /missing, first what it is about/ })).toBeVisible()
  // What is missing is led to, one after the other, and nothing is sent.
  await leonie.keyboard.press('Control+Enter')
  await expect(form.getByLabel('What it is about')).toBeFocused()
  await leonie.keyboard.type('Ropes of the boats')
  await leonie.keyboard.press('Control+Enter')
  const supplier = form.getByRole('combobox', { name: 'With which supplier' })
  await expect(supplier).toBeFocused()
  await leonie.keyboard.type('Mistral')
  await leonie.getByRole('option', { name: /Mistral Chandlery/ }).click()
  await form.getByRole('button', { name: 'Its last day' }).click()
  await leonie.keyboard.type('31.12.2027')
  await leonie.keyboard.press('Enter')
  await form.getByLabel('Up to what may be drawn, without tax').fill('much')
  await expect(form.getByRole('button', { name: /Say up to what may be drawn/ })).toBeVisible()
  await form.getByLabel('Up to what may be drawn, without tax').fill('1,500.00')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])
  await leonie.keyboard.press('Control+Enter')
  await expect(leonie).toHaveURL(/\/agreements\/./)
  await expect(leonie.getByRole('heading', { level: 1 })).toContainText('Ropes of the boats with Mistral Chandlery')
  await expect(leonie.getByText('EUR 1,500.00').first()).toBeVisible()
  // Closed, and opened again, with one press each.
  await leonie.getByRole('button', { name: 'Close it: nothing draws on it any more' }).click()
  await expect(leonie.getByRole('heading', { level: 1 })).toContainText('is closed')
  await leonie.getByRole('button', { name: 'Open it again' }).click()
  await expect(leonie.getByRole('heading', { level: 1 })).toContainText('is in force')

  // An issued order to a supplier with an agreement is said to draw on none, and on it again.
  const { agreements } = (await (await leonie.request.get('/api/agreements?words=Sea')).json()) as {
    agreements: { id: string; number: string }[]
  }
  const [salt] = agreements
  const { orders } = (await (await leonie.request.get(`/api/agreements/${salt?.id ?? ''}`)).json()) as {
    orders: { id: string }[]
  }
  expect(orders.length).toBeGreaterThan(0)
  await leonie.goto(`/orders/${orders[0]?.id ?? ''}`)
  await alive(leonie)
  await leonie.getByRole('button', { name: 'draw on another, or none' }).click()
  await leonie
    .getByRole('dialog')
    .getByRole('button', { name: /^On none/ })
    .click()
  await expect(leonie.getByText('no agreement')).toBeVisible()
  await leonie.getByRole('button', { name: 'draw on one' }).click()
  await leonie
    .getByRole('dialog')
    .getByRole('button', { name: /Sea salt/ })
    .click()
  await expect(leonie.getByRole('link', { name: `agreement ${salt?.number ?? ''}` })).toBeVisible()
})
