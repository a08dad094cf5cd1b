import { alive, expect, pageAs, POST_OF, test } from './setup/as'

// Kaveh Dorani stands in for Mai Torvald, and no other test decides what waits for him. What is done here is undone.
test('several are decided by one press while Rekko cannot be reached, arrive later, and are taken back', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Kaveh Dorani')
  await page.goto('/decide')
  await alive(page)
  const slips = page.getByRole('navigation', { name: 'What waits for you' }).getByRole('link')
  await expect(slips).not.toHaveCount(0)
  const before = await slips.count()
  expect(before).toBeGreaterThanOrEqual(2)
  // The key marks what is shown, and the box marks any.
  await page.locator('#page').focus()
  await page.keyboard.press('Space')
  await page
    .getByRole('checkbox', { name: /^Decide with others/ })
    .nth(1)
    .check()
  await expect(page.getByRole('button', { name: /^Approve these two, EUR/ })).toBeVisible()
  await page.context().setOffline(true)
  await page.locator('#page').focus()
  await page.keyboard.press('Control+Enter')
  // The page goes on at once; what could not be sent is kept, also by a page that is opened anew.
  await expect(slips).toHaveCount(before - 2)
  const offers = page.getByRole('button', { name: 'Take them back' })
  await expect(offers).toBeVisible()
  await expect(page.getByText(/^Two decisions wait here until Rekko can be reached/)).toBeVisible()
  expect(await page.evaluate(() => Object.keys(localStorage).some((k) => k.startsWith('rekko.decisions.')))).toBe(true)
  await page.context().setOffline(false)
  await expect
    .poll(() => page.evaluate(() => Object.keys(localStorage).some((k) => k.startsWith('rekko.decisions.'))))
    .toBe(false)
  await offers.click()
  await expect(slips).toHaveCount(before)
  await page.context().close()
})

test('a decision is passed on with a word, and called back', async ({ browser }) => {
  const page = await pageAs(browser, 'Kaveh Dorani')
  await page.goto('/decide')
  await alive(page)
  const title = await page.getByRole('heading', { level: 1 }).innerText()
  await page.getByRole('button', { name: 'Have somebody else decide' }).click()
  await page.getByRole('combobox', { name: 'Who decides' }).fill('nadia')
  await page.getByRole('option', { name: /Nadia Wexcombe/ }).click()
  await page.getByRole('button', { name: /Pass it on to Nadia Wexcombe/ }).click()
  await expect(page.getByText('Passed on to Nadia Wexcombe.')).toBeVisible()
  // What comes next is there; what was passed on comes back with the same press.
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(title)
  await page.getByRole('button', { name: 'Call it back' }).first().click()
  await expect(page.getByRole('button', { name: /^Approve/ })).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(title)
  await page.context().close()
})

test('an administrator reminds whoever lets something wait, once a day, and skips only where policy has it', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Harriet Voss')
  await page.goto('/waiting?words=kaveh')
  await alive(page)
  await page
    .getByRole('checkbox', { name: /^Mark R-/ })
    .first()
    .check()
  await page.getByRole('radio', { name: 'skip them' }).check()
  await expect(page.locator('.main-action')).toHaveText(/The policy has no step skipped/)
  await page.getByRole('radio', { name: 'remind them' }).check()
  await page.locator('.main-action').click()
  await expect(page.getByText('Reminded: Kaveh Dorani.')).toBeVisible()
  await page
    .getByRole('checkbox', { name: /^Mark R-/ })
    .first()
    .check()
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('alert')).toContainText('once a day is enough')
  await page.context().close()
})

test('money moves between budget lines once the other holder agrees', async ({ browser }) => {
  const tomas = await pageAs(browser, 'Tomas Brandt')
  await tomas.goto('/budgets')
  await alive(tomas)
  await expect(tomas.getByText(/Kaveh Dorani proposes/)).toBeVisible()
  await tomas.getByRole('row', { name: /^Waste/ }).click()
  await tomas.getByRole('button', { name: /Move money into Waste/ }).click()
  await tomas.getByRole('textbox', { name: 'How much' }).fill('12.50')
  await tomas.getByRole('button', { name: /From which line/ }).click()
  await tomas.getByRole('option', { name: /^Training, Water Systems/ }).click()
  await tomas.getByLabel('What it is for').fill('One skip more')
  await tomas.keyboard.press('Control+Enter')
  // He holds both lines: finance decides.
  await expect(tomas.getByText(/You propose to move EUR 12.50 from Training to Waste/)).toBeVisible()
  const greta = await pageAs(browser, 'Greta Molin')
  await greta.goto('/budgets')
  await alive(greta)
  const proposed = greta.getByRole('listitem').filter({ hasText: 'One skip more' })
  await proposed.getByRole('button', { name: 'Agree; the money moves' }).click()
  await expect(proposed.getByRole('button')).toHaveCount(0)
  await tomas.reload()
  await tomas.getByRole('row', { name: /^Waste/ }).click()
  await expect(tomas.getByText(/with 12.50 moved in/)).toBeVisible()
  await Promise.all([tomas, greta].map((p) => p.context().close()))
})

test('what is done by itself is done now, paused, and goes on', async ({ browser }) => {
  const page = await pageAs(browser, 'Harriet Voss')
  await page.goto('/set-up/scheduled')
  await alive(page)
  const letters = page.getByRole('row', { name: /Daily letters/ })
  await letters.getByRole('button', { name: /^Pause/ }).click()
  await expect(letters).toContainText('paused by Harriet Voss')
  await letters.getByRole('button', { name: /^Let it go on/ }).click()
  await expect(letters).not.toContainText('paused by')
  await letters.getByRole('button', { name: /^Do it now/ }).click()
  await expect(letters).toContainText('asked for by Harriet Voss')
  await page.context().close()
})

test('a mail is answered: a question first, then the decision, and each is said in Rekko', async ({ browser }) => {
  const page = await pageAs(browser, 'Kaveh Dorani')
  await page.goto('/decide')
  await alive(page)
  const slip = page.getByRole('navigation', { name: 'What waits for you' }).getByRole('link').first()
  const id = (await slip.getAttribute('href'))?.split('/').at(-1) ?? ''
  const { title, number } = (await (await page.request.get(`/api/documents/${id}/decision`)).json()) as {
    title: string
    number: string
  }
  const post = await (await browser.newContext()).newPage()
  await post.goto(`${POST_OF()}/?words=${encodeURIComponent(number)}`)
  await post.getByRole('link', { name: `For your decision: ${title}` }).click()
  await expect(post.getByText(`${number}: `, { exact: false }).first()).toBeVisible()
  const answer = async (text: string) => {
    await post.getByRole('textbox', { name: 'Your answer' }).fill(text)
    await post.getByRole('button', { name: 'Send the answer' }).click()
    await expect(post.getByRole('status')).toHaveText('The answer was taken.')
  }
  await answer('Can it wait until March?\n\nKaveh')
  await page.goto(`/decide/${id}`)
  await expect(page.getByText('Can it wait until March?').first()).toBeVisible()
  await answer('I would say so.')
  await answer('Approved: before the end of the month')
  await page.goto(`/trail/${id}`)
  await expect(page.getByText(/approved( it)? by mail/).first()).toBeVisible()
  // What changed nothing is told kindly, with what to write.
  await expect
    .poll(async () => {
      await post.goto(`${POST_OF()}/?words=${encodeURIComponent(number)}`)
      return post.getByRole('link', { name: `Not taken: your answer about ${title}` }).count()
    })
    .toBe(1)
  await post.context().close()
  await page.context().close()
})

test('less is approved while deciding, by keyboard; what is typed wrongly is said, and it is taken back', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Kaveh Dorani')
  await page.goto('/decide')
  await alive(page)
  const first = page.locator('table tbody tr').first().locator('td').nth(1)
  const before = await first.innerText()
  await page.getByRole('button', { name: 'Change it while approving' }).click()
  const field = page.getByRole('textbox', { name: /^How many of/ }).first()
  await expect(field).toBeFocused()
  await field.fill('a few')
  await expect(page.getByText(/“a few” is no number/)).toBeVisible()
  await page.locator('#page').focus()
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('alert')).toContainText('is no number')
  await field.fill('0.5')
  const main = page.locator('.main-action')
  await expect(main).toHaveText(/Approve with one line changed/)
  const slips = page.getByRole('navigation', { name: 'What waits for you' }).getByRole('link')
  const waiting = await slips.count()
  await page.locator('#page').focus()
  await page.keyboard.press('Control+Enter')
  await expect(slips).toHaveCount(waiting - 1)
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(slips).toHaveCount(waiting)
  await expect(first).toHaveText(before)
  await page.context().close()
})

test('a year is ended: seen line by line, pressed twice, and kept with a report', async ({ browser }) => {
  const page = await pageAs(browser, 'Greta Molin')
  await page.goto('/budgets')
  await alive(page)
  await page.getByRole('link', { name: 'last year' }).click()
  await page.getByRole('link', { name: /^carry it to .* or release it$/ }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('asked for or ordered and not billed')
  await page.getByRole('button', { name: 'What becomes of Feed' }).click()
  await page.getByRole('option', { name: 'is released' }).click()
  const main = page.locator('.main-action')
  await expect(main).toHaveText(/^Carry EUR 1,180\.00, release EUR 345\.50/)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+Enter')
  await expect(main).toHaveText(/for good/)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText(/is ended for two lines\.$/)).toBeVisible()
  await expect(page.getByText(/EUR 1,180\.00 of one line carried, EUR 345\.50 of one line released/)).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'CSV' }).first().click(),
  ])
  expect(file.suggestedFilename()).toMatch(/^end-of-\d{4}\.csv$/)
  await page.context().close()
})
