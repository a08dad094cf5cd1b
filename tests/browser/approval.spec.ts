import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

test('the policy says what it does, what was found of it, and whom a made-up request would ask', async ({
  browser,
}) => {
  const harriet = await pageAs(browser, 'Harriet Voss')
  await harriet.goto('/set-up/approval')
  await alive(harriet)
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
