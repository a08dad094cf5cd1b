import { alive, expect, pageAs, test } from './setup/as'

test('a key that is held down decides once; the next decision needs another press', async ({ browser }) => {
  const page = await pageAs(browser, 'Ines Adeyemi')
  let decisions = 0
  page.on('request', (r) => {
    if (r.method() === 'POST' && r.url().endsWith('/decisions')) decisions += 1
  })
  await page.goto('/decide')
  await alive(page)
  await expect(page.getByRole('button', { name: /^Approve/ })).toBeEnabled()
  await page.keyboard.down('Control')
  for (let i = 0; i < 12; i += 1) {
    await page.keyboard.down('Enter')
    await page.waitForTimeout(120)
  }
  await page.keyboard.up('Enter')
  await expect(page.getByRole('button', { name: 'Take it back' })).toBeVisible()
  expect(decisions).toBe(1)
  // On the button itself, held Enter and Space press it once as well.
  await page.keyboard.up('Control')
  await expect(page.getByRole('button', { name: /^Approve/ })).toBeEnabled()
  await page.getByRole('button', { name: /^Approve/ }).focus()
  for (let i = 0; i < 12; i += 1) {
    await page.keyboard.down('Enter')
    await page.waitForTimeout(120)
  }
  await page.keyboard.up('Enter')
  await expect.poll(() => decisions).toBe(2)
  await page.context().close()
})
