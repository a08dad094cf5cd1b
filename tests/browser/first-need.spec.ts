import { alive, expect, pageAs, POST_OF, test, URL_OF } from './setup/as'
import { Keys } from './setup/keys'

test.describe.configure({ mode: 'serial' })

let trail = ''
test('a requester raises a whole requisition by keyboard alone, and hears who will decide before sending', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Owen Marsh')
  const keys = new Keys(page)
  await page.goto('/raise')
  await alive(page)
  const add = page.getByRole('combobox', { name: /^Add a line/ })
  await expect(add).toBeFocused()
  const main = page.locator('.main-action')
  await expect(main).toContainText('Three things missing')

  await page.keyboard.type('6 cp-uv-80a')
  await expect(page.getByRole('option').first()).toContainText('Ultraviolet lamp 80 W')
  await keys.press('Enter')
  await page.keyboard.type('6 quartz slev')
  await expect(page.getByRole('option').first()).toContainText('Quartz sleeve, 25 mm, open end')
  await keys.press('Enter')
  await page.keyboard.type('Take away old lamps 140')
  await expect(page.getByRole('option').first()).toContainText('as a line of your own')
  await keys.press('Enter')
  await expect(page.locator('.sum')).toHaveText('EUR 1,217.00')
  await expect(page.getByText('tax 231.23 comes back in full')).toBeVisible()
  await expect(page.getByRole('img', { name: /^Pumps and filters: .* left without this/ })).toBeVisible()
  await expect(main).toHaveText(/Two things missing, then to Ines Adeyemi/)

  // The free line: a supplier of one's own choice, and another budget line.
  await keys.to(/Line 3: paid from/)
  await page.keyboard.type('Was')
  await expect(page.getByRole('option').first()).toContainText('Waste')
  await keys.press('Enter')
  await expect(page.getByRole('img', { name: /^Waste: .* left without this/ })).toBeVisible()
  await keys.to(/Line 3: supplier/)
  await page.keyboard.type('harbour')
  await expect(page.getByRole('option', { name: /Harbour Waste/ })).toBeVisible()
  await keys.press('Enter')
  await expect(page.getByRole('combobox', { name: 'Line 3: supplier' })).toHaveValue('Harbour Waste')

  await keys.to(/^Why it is needed/)
  await page.keyboard.type('the ultraviolet lamps in filter bank 3 are below half strength')
  await keys.to(/^Needed by/)
  await keys.press('Enter')
  await keys.press('ArrowDown')
  await keys.press('Enter')
  await expect(main).toHaveText(/Send to Ines Adeyemi for a decision/)
  await expect(page.getByText('your manager; may approve up to 1,000.00')).toBeVisible()
  await expect(page.getByText('the first above whose limit covers it; may approve up to 5,000.00')).toBeVisible()

  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Attach a quote' }).click(),
  ])
  await chooser.setFiles({
    name: 'Waste carrier quote.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF'),
  })
  await expect(page.getByRole('listbox', { name: 'Waste carrier quote.pdf is a' })).toBeVisible()
  await keys.press('Enter')
  await expect(page.getByRole('button', { name: 'Waste carrier quote.pdf is a: quote' })).toBeFocused()
  await keys.press('Control+Enter')
  await page.waitForURL(/\/trail\//)
  trail = new URL(page.url()).pathname
  await expect(page.getByRole('heading', { level: 1 })).toContainText('waits for Ines Adeyemi')
  console.log(`key presses besides the texts: ${keys.count}`)
  expect(keys.count).toBeLessThan(60)
  await page.context().close()
})

test('a draft saves itself; a closed tab and a lost connection lose nothing', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/raise')
  await alive(page)
  await expect(page.getByRole('combobox', { name: /^Add a line/ })).toBeFocused()
  await page.keyboard.type('2 cp-ssk-28')
  await expect(page.getByRole('option').first()).toContainText('Shaft seal kit')
  await page.keyboard.press('Enter')
  await page.waitForURL(/\/raise\/[0-9a-f-]{36}/)
  const address = page.url()
  await expect(page.getByText(/draft kept/)).toBeVisible()
  await page.close()
  const again = await page.context().newPage()
  await again.goto(address)
  await alive(again)
  await expect(again.getByRole('textbox', { name: 'Line 1: what' })).toHaveValue('Shaft seal kit, 28 mm')
  await again.context().setOffline(true)
  await again.getByRole('textbox', { name: 'Line 1: how many' }).fill('7')
  await again.keyboard.press('Tab')
  await expect(again.getByText(/kept in this browser/)).toBeVisible()
  await again.context().setOffline(false)
  await expect(again.getByText(/draft kept/)).toBeVisible()
  await again.reload()
  await alive(again)
  await expect(again.getByRole('textbox', { name: 'Line 1: how many' })).toHaveValue('7')

  // Two tabs: the second is told, and neither writes over the other.
  const other = await page.context().newPage()
  await other.goto(address)
  await alive(other)
  await other.getByRole('textbox', { name: 'Line 1: how many' }).fill('8')
  await other.keyboard.press('Tab')
  await expect(other.getByText(/draft kept/)).toBeVisible()
  await other.waitForTimeout(1200)
  await again.getByRole('textbox', { name: 'Line 1: how many' }).fill('9')
  await again.keyboard.press('Tab')
  await expect(again.getByRole('alert').first()).toContainText('See it as it is now')
  await other.reload()
  await alive(other)
  await expect(other.getByRole('textbox', { name: 'Line 1: how many' })).toHaveValue('8')
  // Thrown away, and kept after all, with its file.
  await other.getByLabel('Attach files').setInputFiles({
    name: 'Sketch.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF'),
  })
  await expect(other.getByRole('button', { name: 'Look at Sketch.pdf' })).toBeVisible()
  await other.getByRole('button', { name: 'throw away' }).click()
  await other.waitForURL('**/mine')
  await other.getByRole('button', { name: 'Keep it after all' }).click()
  await other.waitForURL(address)
  await alive(other)
  await expect(other.getByRole('textbox', { name: 'Line 1: how many' })).toHaveValue('8')
  await expect(other.getByRole('button', { name: 'Look at Sketch.pdf' })).toBeVisible()
  await page.context().close()
})

test('an expired sign-in is renewed in place, and nothing typed is lost', async ({ browser }) => {
  const page = await pageAs(browser, 'Sorrel Quist')
  await page.goto('/raise')
  await alive(page)
  await expect(page.getByRole('combobox', { name: /^Add a line/ })).toBeFocused()
  await page.keyboard.type('2 mooring line')
  await expect(page.getByRole('option').first()).toContainText('Mooring line')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/draft kept/)).toBeVisible()
  await expect(page.getByText('DKK 2,840.00 without tax', { exact: false })).toBeVisible()
  await page.context().clearCookies()
  await page.getByRole('textbox', { name: 'Line 1: how many' }).fill('3')
  await page.keyboard.press('Tab')
  await expect(page.getByRole('heading', { name: 'You were signed out after a while.' })).toBeVisible()
  await page.getByLabel('E-mail').fill('sorrel.quist@hallamere.example')
  await page.getByLabel('Password').fill('sea-salt-and-patience')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'You were signed out after a while.' })).toBeHidden()
  await expect(page.locator('[id^="line-"]:focus')).toHaveCount(1)
  await expect(page.getByText(/draft kept/)).toBeVisible()
  await page.reload()
  await alive(page)
  await expect(page.getByRole('textbox', { name: 'Line 1: how many' })).toHaveValue('3')
  await page.context().close()
})

test('the approver decides by keyboard; the requester’s open page changes by itself; a decision is taken back', async ({
  browser,
}) => {
  const [owen, ines] = [await pageAs(browser, 'Owen Marsh'), await pageAs(browser, 'Ines Adeyemi')]
  await owen.goto(trail)
  await alive(owen)
  await ines.goto(`/decide${trail.replace('/trail', '')}`)
  await alive(ines)
  await expect(ines.getByRole('heading', { level: 1 })).toContainText(
    'Owen Marsh asks for EUR 1,217.00 for Water Systems',
  )
  await expect(ines.locator('.main-action')).toHaveText(/Approve and pass to Tomas Brandt/)
  await expect(ines.getByRole('button', { name: /Waste carrier quote.pdf/ })).toBeVisible()

  await ines.getByLabel('Ask, answer or leave a reason').fill('Can the sleeves wait?')
  await ines.getByRole('button', { name: 'Ask' }).click()
  await expect(owen.getByText('Ines Adeyemi asks: “Can the sleeves wait?”')).toBeVisible()
  await owen.getByLabel('Your answer').fill('No, two are cracked.')
  await owen.keyboard.press('Control+Enter')
  await expect(ines.getByText('No, two are cracked.')).toBeVisible()

  // Without a reason it is not sent back; the field says what is missing.
  await ines.getByRole('button', { name: 'Send back' }).click()
  await expect(ines.getByText('Say what is to be changed')).toBeVisible()
  // In the box the main key is the box's; outside it approves.
  await ines.locator('#page').focus()
  await ines.keyboard.press('Control+Enter')
  await expect(owen.getByRole('heading', { level: 1 })).toContainText('waits for Tomas Brandt')
  await ines.getByRole('button', { name: 'Take it back' }).click()
  await expect(owen.getByRole('heading', { level: 1 })).toContainText('waits for Ines Adeyemi')
  // What comes next may be for Tomas Brandt too: the key is for what was taken back, once it is shown again.
  await expect(ines.getByRole('heading', { level: 1 })).toContainText('Owen Marsh asks for EUR 1,217.00')
  await expect(ines.locator('.main-action')).toHaveText(/Approve and pass to Tomas Brandt/)
  await ines.keyboard.press('Control+Enter')
  await expect(owen.getByRole('heading', { level: 1 })).toContainText('waits for Tomas Brandt')

  // The other slips by arrows alone: the next is there after each decision.
  await ines.locator('#page').focus()
  const slips = ines.getByRole('navigation', { name: 'What waits for you' }).getByRole('link')
  await expect(slips).not.toHaveCount(0)
  const waiting = await slips.count()
  expect(waiting).toBeGreaterThanOrEqual(5)
  const chosen = ines.getByRole('navigation', { name: 'What waits for you' }).locator('[aria-current="true"]')
  for (let left = waiting; left > waiting - 3; left -= 1) {
    await ines.keyboard.press('ArrowRight')
    const name = (await chosen.innerText()).split('\n')[0] ?? ''
    await expect(ines.getByRole('heading', { level: 1 })).toContainText(`${name} asks for`)
    // Two in a row may be the same person's: the number tells which one is shown.
    const id = ((await chosen.getAttribute('href')) ?? '').split('/').pop() ?? ''
    await expect(ines.locator(`article a[href="/trail/${id}"]`)).toBeVisible()
    await expect(ines.locator('.main-action')).toHaveText(/Approve and pass to/)
    await ines.keyboard.press('Control+Enter')
    await expect(slips).toHaveCount(left - 1)
    await expect(ines.locator('#page')).toBeFocused()
  }
  await ines.context().close()

  const tomas = await pageAs(browser, 'Tomas Brandt', { viewport: { width: 390, height: 844 }, hasTouch: true })
  await tomas.goto(`/decide${trail.replace('/trail', '')}`)
  await alive(tomas)
  const approve = tomas.getByRole('button', { name: /Approve and pass to the buyers/ })
  await expect(approve).toBeInViewport()
  expect(await tomas.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true)
  await approve.tap()
  await expect(owen.getByRole('heading', { level: 1 })).toContainText('approved, waits to be ordered')
  await Promise.all([owen, tomas].map((p) => p.context().close()))
})

test('the buyer lays lines of two requests on one tray by keys and issues the order; the mail arrives', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Leonie Farrow')
  await page.goto('/desk')
  await alive(page)
  const lamps = page.getByRole('row', { name: /Ultraviolet lamp 80 W.*Owen Marsh/ }).first()
  await lamps.focus()
  await page.keyboard.press('Space')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Space')
  await expect(page.locator('#page-note')).toContainText('Enter lays the 2 marked lines on')
  await page.keyboard.press('Enter')
  const tray = page.getByRole('region', { name: 'Tray for Corrigan Pumps' })
  await expect(tray).toBeVisible()
  await expect(tray.getByRole('button', { name: /Issue and e-mail to Corrigan Pumps/ })).toBeVisible()
  await page.keyboard.press('Control+Enter')
  const done = page.getByRole('status').filter({ hasText: 'is issued to Corrigan Pumps' })
  await expect(done).toBeVisible()
  const number = /P-\d\d-\d{5}/.exec(await done.innerText())?.[0] ?? ''
  await done.getByRole('link', { name: 'See the order' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText(`${number} to Corrigan Pumps`)
  await expect(page.getByText(/e-mailed to orders@corrigan.example/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('link', { name: 'Keep the PDF as it was sent' })).toBeVisible()
  const post = await page.context().newPage()
  await post.goto(`${POST_OF()}/?words=${number}`)
  await post.getByRole('link', { name: new RegExp(`Purchase order ${number}`) }).click()
  await expect(post.getByRole('link', { name: `${number}.pdf` })).toBeVisible()
  await page.context().close()
})

test('above her limit the order is refused, naming who may issue it; Mine and Budgets show where things stand', async ({
  browser,
}) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/desk')
  await alive(leonie)
  await leonie.getByRole('row', { name: /Circulation pump, 5.5 kW/ }).click()
  await leonie.getByRole('button', { name: /Lay the marked line on a new tray/ }).click()
  const tray = leonie.getByRole('region', { name: 'Tray for Corrigan Pumps' })
  await expect(tray).toContainText(
    'Your ordering limit is EUR 3,000.00; this order is EUR 3,480.00: Harriet Voss may issue it.',
  )
  await expect(tray.getByRole('button', { name: /Issue and e-mail/ })).toHaveCount(0)
  await expect(tray.getByRole('button', { name: 'Send it to whoever decides' })).toBeVisible()
  await tray.getByRole('button', { name: /Put this tray away/ }).click()
  await expect(tray).toHaveCount(0)
  await leonie.context().close()

  const owen = await pageAs(browser, 'Owen Marsh')
  await owen.goto('/mine?words=Ultraviolet')
  await alive(owen)
  const row = owen.getByRole('row', { name: /Ultraviolet lamp 80 W, amalgam and 2 more/ })
  await expect(row.getByRole('img', { name: /Order: 88 % ordered/ })).toBeVisible()
  await row.getByRole('link').first().click()
  await expect(owen.getByText(/to Corrigan Pumps/).first()).toBeVisible()
  await owen.context().close()

  const tomas = await pageAs(browser, 'Tomas Brandt')
  await tomas.goto('/budgets')
  await alive(tomas)
  await tomas.getByRole('row', { name: /Pumps and filters/ }).click()
  await expect(tomas.getByRole('heading', { name: /What stands behind/ })).toBeVisible()
  await expect(tomas.getByText(/P-\d\d-\d{5}/).first()).toBeVisible()
  expect(tomas.url()).toContain('line=')
  await tomas.context().close()
})

test('what is sent back is changed and sent again; within the own limit it is approved at once', async ({
  browser,
}) => {
  const sorrel = await pageAs(browser, 'Sorrel Quist')
  await sorrel.goto('/mine')
  await alive(sorrel)
  await sorrel.getByRole('link', { name: 'Change: Water sampler' }).click()
  await alive(sorrel)
  await expect(sorrel.getByText(/Sent back by/)).toBeVisible()
  await sorrel.locator('#blank-why').click()
  await sorrel.keyboard.press('End')
  await sorrel.keyboard.type(' and the other is 14 years old')
  // What is asked for since this month counts for what comes back, too.
  await sorrel.locator('.main-action').click()
  await expect(sorrel.getByLabel('Justification')).toBeFocused()
  await sorrel.getByLabel('Justification').fill('the other one leaks at depth')
  await expect(sorrel.locator('.main-action')).toHaveText(/Send to Nadia Wexcombe/)
  await sorrel.keyboard.press('Control+Enter')
  await sorrel.waitForURL(/\/trail\//)
  await expect(sorrel.getByText('Sorrel Quist sent again', { exact: false })).toBeVisible()
  await sorrel.context().close()

  const owen = await pageAs(browser, 'Owen Marsh')
  await owen.goto('/raise')
  await alive(owen)
  await expect(owen.getByRole('combobox', { name: /^Add a line/ })).toBeFocused()
  await owen.keyboard.type('2 filter bag')
  await expect(owen.getByRole('option').first()).toContainText('Filter bag')
  await owen.keyboard.press('Enter')
  await owen.locator('#blank-need-by').click()
  await owen.getByRole('button', { name: '10 working days on' }).click()
  await owen.locator('#blank-why').click()
  await owen.keyboard.type('one to have')
  await expect(owen.locator('.main-action')).toHaveText(/Send: approved at once, and on to the buyers/)
  await owen.locator('.main-action').click()
  await owen.waitForURL(/\/trail\//)
  await expect(owen.getByRole('heading', { level: 1 })).toContainText('approved, waits to be ordered')
  await owen.context().close()
})

test('away: who decides meanwhile is named, and taken back', async ({ browser }) => {
  const page = await pageAs(browser, 'Tomas Brandt')
  await page.goto('/away')
  await alive(page)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('You are here, and decide yourself.')
  await page.locator('#away-from').click()
  await page.getByRole('button', { name: '5 working days on' }).click()
  await page.locator('#away-until').click()
  await page.keyboard.press('Enter')
  await page.getByRole('combobox', { name: 'Who decides meanwhile' }).fill('nadia')
  await page.getByRole('option', { name: /Nadia Wexcombe/ }).click()
  await expect(page.locator('.main-action')).toHaveText(/Nadia Wexcombe decides/)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('cell', { name: 'Nadia Wexcombe' })).toBeVisible()
  await page.getByRole('button', { name: /End the days away/ }).click()
  await expect(page.getByText('Nothing is written down')).toBeVisible()
  await page.context().close()
})

test('signing in by e-mail leads to where one wanted to go; a stranger sees only the sign-in', async ({ browser }) => {
  const context = await browser.newContext({ baseURL: URL_OF() })
  const page = await context.newPage()
  await page.goto('/budgets')
  await expect(page).toHaveURL(/\/sign-in\?to=\/budgets/)
  await alive(page)
  await page.getByRole('textbox', { name: 'E-mail' }).fill('tomas.brandt@hallamere.example')
  await page.getByLabel('Password').fill('wrong')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toHaveText('E-mail and password do not fit together.')
  await page.getByLabel('Password').fill('sea-salt-and-patience')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\d\/budgets$/)
  await page.goto('/trail/00000000-0000-4000-8000-000000000000')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'There is nothing here, or it is not for you to see.',
  )
  await context.close()
})
