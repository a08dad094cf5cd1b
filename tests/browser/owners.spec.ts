import { alive, expect, pageAs, test } from './setup/as'

test('a tray is passed to a colleague whose limit covers it, taken back, and passed again', async ({ browser }) => {
  const page = await pageAs(browser, 'Leonie Farrow')
  await page.goto('/desk')
  await alive(page)
  const line = page.locator('tr[id^="line-"]', { hasText: 'Circulation pump, 5.5 kW' })
  await line.focus()
  await page.keyboard.press('Enter')
  const tray = page.getByRole('region', { name: 'Tray for Corrigan Pumps' })
  await expect(tray).toContainText('Your ordering limit is EUR 3,000.00')
  await tray.getByRole('button', { name: 'Pass it to a colleague' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('listitem').first()).toContainText('the ordering limit covers it')
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await expect(tray).toBeVisible()
  const pass = async () => {
    await tray.getByRole('button', { name: 'Pass it to a colleague' }).click()
    await page.getByRole('button', { name: 'Pass it to Harriet Voss' }).click()
    await expect(page.getByText('The tray for Corrigan Pumps is Harriet Voss’s now.')).toBeVisible()
    await expect(tray).toHaveCount(0)
  }
  await pass()
  await page.getByRole('button', { name: 'Take it back', exact: true }).click()
  await expect(tray).toBeVisible()
  await pass()

  const harriet = await pageAs(browser, 'Harriet Voss')
  await harriet.goto('/desk')
  await alive(harriet)
  const hers = harriet.getByRole('region', { name: 'Tray for Corrigan Pumps' })
  await expect(hers.getByRole('button', { name: /Issue and e-mail to Corrigan Pumps/ })).toBeVisible()
  await hers.getByRole('button', { name: 'Put this tray away; its lines go back' }).click()
  await expect(hers).toHaveCount(0)
  await Promise.all([page, harriet].map((p) => p.context().close()))
})

test('all that somebody owns is looked at and handed over from Away; whoever owns nothing is said to', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Harriet Voss')
  await page.goto('/away')
  await alive(page)
  const section = page.getByRole('region', { name: 'When somebody leaves' })
  const choose = async (label: string, name: string) => {
    await page.getByRole('combobox', { name: label }).fill(name)
    await page.getByRole('option', { name: new RegExp(name) }).click()
  }
  await choose('Whose things go over', 'Farida Nwosu')
  await expect(section).toContainText('owns is nothing that is not over.')
  await choose('Whose things go over', 'Jonas Abara')
  await expect(section.getByRole('row', { name: /Sheet and cement, jellyfish tank/ })).toContainText('in approval')
  await choose('Who gets the requests', 'Kaveh Dorani')
  await section.getByRole('button', { name: /^Hand .* requests.* to Kaveh Dorani$/ }).click()
  await expect(section.getByRole('status')).toHaveText(/^Handed over: .* requests.* of Jonas Abara\.$/)
  await expect(section).toContainText('owns is nothing that is not over.')
  await page.context().close()
})
