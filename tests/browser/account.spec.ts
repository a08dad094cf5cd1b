import AxeBuilder from '@axe-core/playwright'
import { Secret, TOTP } from 'otpauth'
import { alive, expect, pageAs, test, URL_OF, watched } from './setup/as'

test('the password is changed by keyboard, and the place left open elsewhere asks to sign in again', async ({
  browser,
}) => {
  const [elsewhere, page] = [await pageAs(browser, 'Nadia Wexcombe'), await pageAs(browser, 'Nadia Wexcombe')]
  await elsewhere.goto('/mine')
  await alive(elsewhere)
  await page.goto('/mine')
  await alive(page)
  await page.getByRole('button', { name: /^Nadia Wexcombe/ }).click()
  await page.getByRole('dialog').getByRole('link', { name: 'Account' }).click()
  await page.waitForURL('**/account')
  await expect(page.getByText('You are signed in here and at one other place.')).toBeVisible()
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
  await expect(page.locator('.page-foot').getByRole('status')).toHaveText(
    'The password is changed. A mail says so, too.',
  )
  await expect(page.getByText('You are signed in here, and nowhere else.')).toBeVisible()
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
  await expect(page.locator('.page-foot').getByRole('status')).toHaveText(/^Chrome.* is signed out\.$/)
  await expect(page.getByRole('main')).toBeFocused()
  expect((await elsewhere.request.get('/api/session')).status()).toBe(401)
  await page.context().close()
  await elsewhere.context().close()
})

test('a second factor is set up, asked for at the next sign-in, and taken away; a token is made and ended', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Kaveh Dorani')
  await page.goto('/account')
  await alive(page)
  await page.getByRole('button', { name: 'Set it up' }).click()
  const secret = ((await page.getByText(/^([A-Z2-7]{4} ?)+$/).textContent()) ?? '').replace(/\s/g, '')
  const totp = new TOTP({ secret: Secret.fromBase32(secret) })
  const field = page.getByLabel('The code of now')
  await field.fill('000000')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('does not fit')
  // A code holds for its half minute and the next: it is typed while there is time left to send it.
  const left = 30_000 - (Date.now() % 30_000)
  if (left < 15_000) await page.waitForTimeout(left + 200)
  await field.fill(totp.generate({ timestamp: Date.now() - 30_000 }))
  // The key of the main action belongs to the form one writes in.
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('list', { name: 'Recovery codes' }).getByRole('listitem')).toHaveCount(10)
  const [first = ''] = await page.getByRole('list', { name: 'Recovery codes' }).getByRole('listitem').allTextContents()
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([])

  const other = watched(await (await browser.newContext({ baseURL: URL_OF() })).newPage())
  await other.goto('/sign-in')
  await alive(other)
  await other.locator('#email').fill('kaveh.dorani@hallamere.example')
  await other.locator('#password').fill('sea-salt-and-patience')
  await other.keyboard.press('Enter')
  await expect(other.getByLabel('The code of now')).toBeFocused()
  await other.keyboard.type(totp.generate())
  await other.keyboard.press('Enter')
  await expect(other.getByRole('button', { name: /^Kaveh Dorani/ })).toBeVisible()
  await other.context().close()

  await page.getByRole('button', { name: 'Make a token' }).click()
  await page.getByRole('button', { name: 'Make the token' }).click()
  await expect(page.getByLabel('What it is for')).toBeFocused()
  await page.keyboard.type('nightly figures')
  await page.getByRole('checkbox', { name: 'see own' }).check()
  await page.getByRole('button', { name: 'Make the token' }).click()
  await expect(page.locator('code')).toHaveText(/^rekko_/)
  await page.getByRole('button', { name: 'End nightly figures' }).click()
  await expect(page.getByRole('button', { name: 'End nightly figures' })).toHaveCount(0)

  await page.getByRole('button', { name: 'take the second factor away' }).click()
  await page.getByLabel('The code of now').fill(first)
  await page.keyboard.press('Enter')
  await expect(page.getByText('Signing in asks for no code any more.')).toBeVisible()
  await page.context().close()
})

test('pages are dark where one says so, whatever the machine is set to, from the first drawing on', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Kaveh Dorani')
  await page.goto('/account')
  await alive(page)
  const ground = () => page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor)
  const light = await ground()
  await page.getByRole('button', { name: /^How pages look/ }).click()
  await page.getByRole('option', { name: 'dark', exact: true }).click()
  await expect.poll(ground).not.toBe(light)
  await page.goto('/mine')
  expect(await page.content()).toContain('data-theme="dark"')
  await page.goto('/account')
  await alive(page)
  await page.getByRole('button', { name: /^How pages look/ }).click()
  await page.getByRole('option', { name: 'as the machine is set' }).click()
  await expect.poll(ground).toBe(light)
  await page.context().close()
})
