import { alive, expect, pageAs, test } from './setup/as'

test('the password is changed by keyboard, and the place left open elsewhere asks to sign in again', async ({
  browser,
}) => {
  const [elsewhere, page] = [await pageAs(browser, 'Tomas Brandt'), await pageAs(browser, 'Tomas Brandt')]
  await elsewhere.goto('/mine')
  await alive(elsewhere)
  await page.goto('/mine')
  await alive(page)
  await page.getByRole('button', { name: /^Tomas Brandt/ }).click()
  await page.getByRole('dialog').getByRole('link', { name: 'Account' }).click()
  await page.waitForURL('**/account')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('You are signed in here and at one other place.')
  const [current, next] = [page.getByLabel('The password of now'), page.getByLabel('The new one', { exact: true })]
  // With something missing the key leads there.
  await page.keyboard.press('Control+Enter')
  await expect(current).toBeFocused()
  await page.keyboard.type('not my password')
  await page.keyboard.press('Tab')
  await page.keyboard.type('kelp and lanterns')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText('This is not the password you have now.')
  await expect(current).toBeFocused()
  await expect(next).toHaveValue('kelp and lanterns')
  await page.keyboard.press('Control+A')
  await page.keyboard.type('sea-salt-and-patience')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('status')).toHaveText('The password is changed. A mail says so, too.')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('You are signed in here, and nowhere else.')
  await expect(next).toHaveValue('')
  await expect(elsewhere.getByRole('dialog').getByLabel('Password')).toBeVisible()
  await page.context().close()
  await elsewhere.context().close()
})

test('another place is signed out, and the focus is kept', async ({ browser }) => {
  const [elsewhere, page] = [await pageAs(browser, 'Sorrel Quist'), await pageAs(browser, 'Sorrel Quist')]
  await page.goto('/account')
  await alive(page)
  await page
    .getByRole('button', { name: /^Sign out Chrome/ })
    .first()
    .click()
  await expect(page.getByRole('status')).toHaveText(/^Chrome.* is signed out\.$/)
  await expect(page.getByRole('main')).toBeFocused()
  expect((await elsewhere.request.get('/api/session')).status()).toBe(401)
  await page.context().close()
  await elsewhere.context().close()
})
