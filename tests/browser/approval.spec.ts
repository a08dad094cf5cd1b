import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

test('the policy says what it does, what was found of it, and whom a made-up request would ask', async ({
  browser,
}) => {
  const harriet = await pageAs(browser, 'Harriet Voss')
  await harriet.goto('/set-up/approval')
  await alive(harriet)
  // A draft of hers lies there, compared with what holds; without it the page says what holds.
  await expect(harriet.getByRole('heading', { level: 1 })).toHaveText(/^Under the draft, twelve rules/)
  const changes = harriet.getByRole('region', { name: 'What the draft changes' })
  await expect(changes.getByRole('insertion').filter({ hasText: /^now: Requests from 300\.00 go up/ })).toBeVisible()
  await harriet.getByRole('button', { name: 'Throw the draft away' }).click()
  await expect(harriet.getByRole('heading', { level: 1 })).toHaveText('Twelve rules say who decides.')
  await expect(harriet.getByText(/^Every request goes up the chain of managers/)).toBeVisible()
  // Found beside the page: whoever decides in the end may not decide their own.
  await expect(harriet.getByRole('status').first()).toHaveText(/things were found\.$/)
  await expect(harriet.getByText(/^From 1,000,000\.01: it is held, because/)).toBeVisible()

  const tries = harriet.getByRole('region', { name: 'Try it' })
  await tries.getByRole('button', { name: /Who raises it/ }).click()
  await harriet.getByRole('option', { name: 'Owen Marsh' }).click()
  const amount = tries.getByRole('textbox', { name: /How much/ })
  await amount.fill('1000')
  await expect(tries.getByText('Ines Adeyemi')).toBeVisible()
  await amount.fill('1000.01')
  await expect(tries.getByText('Tomas Brandt')).toBeVisible()
  await amount.fill('250')
  await expect(tries.getByText('It passes at once, and nobody is asked.')).toBeVisible()
  await amount.fill('some')
  await expect(tries.getByText('“some” is no amount.')).toBeVisible()
  await amount.fill('25000')
  for (const trustee of ['Aldous Penhale', 'Farida Nwosu', 'Tobias Lund'])
    await expect(tries.getByText(trustee)).toBeVisible()
  const { violations } = await new AxeBuilder({ page: harriet }).analyze()
  expect(violations).toEqual([])
})

test('a rule is written by keyboard, tried beside what holds, asked for, confirmed by finance, and restored', async ({
  browser,
}) => {
  const [harriet, greta] = [await pageAs(browser, 'Harriet Voss'), await pageAs(browser, 'Greta Molin')]
  for (const page of [harriet, greta]) {
    await page.goto('/set-up/approval')
    await alive(page)
  }
  const action = (page: typeof harriet) => page.locator('.page-foot .main-action')
  await harriet.getByRole('button', { name: 'Change rule 2' }).focus()
  await harriet.keyboard.press('Enter')
  await expect(harriet.getByRole('button', { name: /^Which documents it is for/ })).toBeFocused()
  const from = harriet.getByRole('textbox', { name: /^From which amount on/ })
  await from.focus()
  await harriet.keyboard.type('three')
  await harriet.keyboard.press('Tab')
  await expect(harriet.getByText('“three” is not an amount; what was there before stays.')).toBeVisible()
  await from.focus()
  await harriet.keyboard.press('Control+A')
  await harriet.keyboard.type('300')
  await harriet.keyboard.press('Tab')
  await expect(harriet.getByRole('heading', { level: 1 })).toHaveText(/^Under the draft, twelve rules/)
  await expect(harriet.getByText('Kept as a draft.')).toBeVisible()
  // Looked at anew: below 300 nothing but the budget asks anybody, which no rule is left for.
  await expect(harriet.getByText(/no rule fits, and Marguerite Oduya decides/).first()).toBeVisible()
  const tries = harriet.getByRole('region', { name: 'Try it' })
  await tries.getByRole('button', { name: /Who raises it/ }).click()
  await harriet.getByRole('option', { name: 'Owen Marsh' }).click()
  await tries.getByRole('textbox', { name: /How much/ }).fill('299.99')
  await expect(tries.getByRole('heading', { name: 'Under the draft' })).toBeVisible()
  await expect(tries.getByText('Ines Adeyemi')).toHaveCount(1)
  await tries.getByRole('textbox', { name: /How much/ }).fill('300')
  await expect(tries.getByRole('heading', { name: 'As it is, and under the draft' })).toBeVisible()
  const { violations } = await new AxeBuilder({ page: harriet }).analyze()
  expect(violations).toEqual([])

  // What was sent this year, replayed: stopped before anything came, then to its end.
  const replays = harriet.getByRole('region', { name: 'On past requests' })
  let held = () => undefined as unknown
  const mayGo = new Promise((resolve) => (held = () => resolve(undefined)))
  await harriet.route('**/api/approval-policy/replays', async (route) => {
    await mayGo
    await route.continue().catch(() => undefined)
  })
  await replays.getByRole('button', { name: 'Replay them' }).click()
  await expect(replays.getByRole('progressbar', { name: 'How far it came' })).toBeVisible()
  await replays.getByRole('button', { name: 'Stop' }).click()
  await expect(replays.getByText('Stopped before the first was done.')).toBeVisible()
  held()
  await harriet.unroute('**/api/approval-policy/replays')
  await expect(replays.getByText(/^Of .* requests/)).toHaveCount(0)
  await replays.getByRole('button', { name: 'Replay them' }).focus()
  await harriet.keyboard.press('Enter')
  // Below 300 the fallback is asked instead of the manager: as many decisions, by others.
  await expect(replays.getByText(/^Of \d+ requests: \d+ decisions as before\.$/)).toBeVisible()
  await expect(replays.getByText(/: others would decide, or in another order/)).toBeVisible()
  await expect(replays.getByRole('table', { name: 'Requests that would go another way' })).toContainText(/R-\d\d-/)
  const replayed = await new AxeBuilder({ page: harriet }).include('[aria-labelledby=replay-draft]').analyze()
  expect(replayed.violations).toEqual([])

  // Rules change their places by keys, and back.
  await harriet.getByRole('button', { name: 'Close rule 2' }).click()
  const rules = harriet.getByRole('list', { name: 'Rules, in their order' }).locator('> li')
  await harriet.keyboard.press('Alt+ArrowDown')
  await expect(rules.nth(2)).toContainText('Requests from 300.00 go up the chain')
  await expect(rules.nth(2)).toBeFocused()
  await harriet.keyboard.press('Alt+ArrowUp')
  await expect(rules.nth(1)).toContainText('Requests from 300.00 go up the chain')

  await harriet.getByLabel(/What this version changes/).fill('Nothing below 300 is asked of managers')
  await harriet.keyboard.press('Control+Enter')
  await expect(action(harriet)).toHaveText(/It waits for another administrator, or finance/)
  await expect(harriet.getByRole('button', { name: 'Change rule 2' })).toHaveCount(0)
  // The page that lies open elsewhere has heard of it.
  await expect(action(greta)).toHaveText(/^Confirm two changes; they hold at once/)
  await expect(greta.getByRole('button', { name: 'Change rule 2' })).toHaveCount(0)
  await greta.getByRole('button', { name: 'Give it back' }).click()
  await greta.getByLabel('What is to be changed').fill('why 300?')
  await greta.getByRole('button', { name: 'Give it back with this' }).click()
  await expect(harriet.getByText('It came back from Greta Molin: why 300?')).toBeVisible()
  await harriet.keyboard.press('Control+Enter')
  await expect(action(greta)).toHaveText(/^Confirm two changes/)
  await greta.keyboard.press('Control+Enter')
  await expect(greta.getByText(/in force since .*, asked for by Harriet Voss, confirmed by Greta Molin/)).toBeVisible()
  await expect(greta.getByRole('heading', { level: 1 })).toHaveText('Twelve rules say who decides.')

  // What held before is compared, written into a draft and put in force again.
  await harriet.getByRole('button', { name: 'What version 2 says otherwise' }).click()
  await expect(harriet.getByRole('deletion').filter({ hasText: 'Requests from 300.00 go up the chain' })).toBeVisible()
  await harriet.getByRole('button', { name: 'write all of it into the draft' }).click()
  await expect(harriet.getByLabel(/What this version changes/)).toHaveValue(/^As in version 2: /)
  await expect(harriet.getByText('Kept as a draft.')).toBeVisible()
  await harriet.keyboard.press('Control+Enter')
  await expect(action(greta)).toHaveText(/^Confirm two changes/)
  await greta.keyboard.press('Control+Enter')
  // The draft says so too: only without one it holds, for the tests that follow as well.
  await expect(greta.getByRole('heading', { level: 1 })).toHaveText('Twelve rules say who decides.')
  await expect(greta.getByText(/^Every request goes up the chain of managers/).first()).toBeVisible()
  for (const page of [harriet, greta]) await page.context().close()
})
