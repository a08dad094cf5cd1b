import { alive, expect, pageAs, test } from './setup/as'

test(
  'an administrator defines an own field in a sentence, tries it, puts it in force; staff are asked; it is ' +
    'taken away again',
  async ({ browser }) => {
    const harriet = await pageAs(browser, 'Harriet Voss')
    await harriet.goto('/mine')
    await alive(harriet)
    await harriet.getByRole('link', { name: 'Set-up', exact: true }).click()
    await harriet.getByRole('link', { name: 'Requests', exact: true }).click()
    await expect(harriet.getByRole('heading', { level: 1 })).toContainText('Staff raise three kinds of requests.')
    const main = harriet.locator('.main-action')
    await harriet.getByRole('button', { name: 'add an own field' }).click()
    const entry = harriet.getByRole('region', { name: 'Own fields' }).getByRole('listitem').last()
    // The caret stands where its name is written; what is wrong is said at once, and the main action leads there.
    await expect(entry.getByRole('textbox', { name: 'Name of the field' })).toBeFocused()
    await expect(main).toHaveText(/One thing to put right first/)
    await harriet.keyboard.type('Cabin')
    await entry.getByRole('button', { name: /^Its type/ }).click()
    await harriet.getByRole('option', { name: 'a choice', exact: true }).click()
    await harriet.getByRole('button', { name: '“Cabin” needs at least two things to choose from.' }).click()
    await expect(entry.getByRole('textbox', { name: 'Name of the field' })).toBeFocused()
    await entry.getByRole('textbox', { name: /^What is chosen from/ }).click()
    await harriet.keyboard.type('inner, outer')
    await entry.getByRole('button', { name: /^Whether it is needed/ }).click()
    await harriet.getByRole('option', { name: 'has to be filled in' }).click()
    await entry.getByRole('button', { name: /^Of kinds/ }).click()
    await harriet.getByRole('option', { name: 'a journey' }).click()
    await harriet.keyboard.press('Escape')
    await expect(entry).toContainText('for a journey')
    const tried = harriet.getByRole('region', { name: 'Try it' })
    await expect(tried).not.toContainText('Cabin')
    await tried.getByRole('button', { name: /^Of which kind/ }).click()
    await harriet.getByRole('option', { name: 'a journey' }).click()
    await expect(tried).toContainText('has to say Cabin')
    await expect(harriet.getByRole('region', { name: 'What you change' })).toContainText('Own field “Cabin”: new')

    // It holds for nobody yet, and waits in this browser.
    await harriet.reload()
    await alive(harriet)
    await expect(harriet.getByText('What you changed last time is still here')).toBeVisible()
    await expect(main).toHaveText(/Put one change in force/)
    // The key of the main action works from a blank too.
    await entry.getByRole('button', { name: /^Of kinds/ }).focus()
    await harriet.keyboard.press('Control+Enter')
    await expect(harriet.getByText('One change holds from now on.')).toBeVisible()
    await expect(harriet.getByRole('option')).toHaveCount(0)

    const owen = await pageAs(browser, 'Owen Marsh')
    await owen.goto('/raise')
    await alive(owen)
    await owen.getByRole('button', { name: /^What kind of request/ }).click()
    await owen.getByRole('option', { name: /^a journey/ }).click()
    await expect(owen.getByText('Fill in Cabin.')).toBeVisible()

    await harriet.getByRole('button', { name: 'Take that back' }).click()
    // A request that is being written follows.
    await expect(owen.getByText('Fill in Cabin.')).toBeHidden()
    await expect(harriet.getByRole('button', { name: 'Take Cabin away' })).toHaveCount(0)
    await owen.context().close()
    await harriet.context().close()
  },
)

test('what is taken away may be put back until it is put in force', async ({ browser }) => {
  const harriet = await pageAs(browser, 'Harriet Voss')
  await harriet.goto('/set-up/requests')
  await alive(harriet)
  const main = harriet.locator('.main-action')
  await harriet.getByRole('button', { name: 'add an own field' }).click()
  await harriet.keyboard.type('Cabin')
  await harriet.keyboard.press('Control+Enter')
  await expect(harriet.getByText('One change holds from now on.')).toBeVisible()
  await harriet.getByRole('button', { name: 'Take Cabin away' }).click()
  await harriet.getByRole('button', { name: 'Put it back' }).click()
  await expect(main).toHaveText(/nothing holds until you say so/)
  await harriet.getByRole('button', { name: 'Take Cabin away' }).click()
  await expect(harriet.getByRole('button', { name: 'add an own field' })).toBeFocused()
  await harriet.keyboard.press('Control+Enter')
  await expect(harriet.getByText('One change holds from now on.')).toBeVisible()
  await harriet.context().close()
})

test('two administrators at once: the second is told, and both changes stand', async ({ browser }) => {
  const [one, two] = [await pageAs(browser, 'Harriet Voss'), await pageAs(browser, 'Harriet Voss')]
  for (const page of [one, two]) {
    await page.goto('/set-up/requests')
    await alive(page)
  }
  const help = (page: typeof one, of: string) =>
    page
      .getByRole('listitem')
      .filter({ hasText: of })
      .first()
      .getByRole('textbox', { name: /^What staff read about this kind/ })
  const before = [await help(one, 'a service').innerText(), await help(one, 'a journey').innerText()]
  const change = async (page: typeof one, of: string, text: string) => {
    await help(page, of).fill(text)
    await expect(page.locator('.main-action')).toHaveText(/Put one change in force/)
  }
  await change(two, 'a journey', 'Tickets and beds.')
  await change(one, 'a service', 'Work that somebody does.')
  await one.keyboard.press('Control+Enter')
  await expect(one.getByText('One change holds from now on.')).toBeVisible()
  await expect(two.getByText('Somebody else put changes in force meanwhile.', { exact: false })).toBeVisible()
  await expect(help(two, 'a service')).toHaveText('Work that somebody does.')
  await expect(help(two, 'a journey')).toHaveText('Tickets and beds.')
  await two.keyboard.press('Control+Enter')
  await expect(two.getByText('One change holds from now on.')).toBeVisible()
  // Whoever changed nothing sees it at once.
  await expect(help(one, 'a journey')).toHaveText('Tickets and beds.')
  await help(two, 'a service').fill(before[0] ?? '')
  await help(two, 'a journey').fill(before[1] ?? '')
  await expect(two.locator('.main-action')).toHaveText(/Put two changes in force/)
  await two.keyboard.press('Control+Enter')
  await expect(two.getByText('Two changes hold from now on.')).toBeVisible()
  for (const page of [one, two]) await page.context().close()
})

test('an amount that cannot be read changes nothing and says so; what a rule would have done is counted', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Harriet Voss')
  await page.goto('/set-up/requests')
  await alive(page)
  const rule = page.getByRole('region', { name: 'What some requests need' }).getByRole('listitem').first()
  await expect(rule).toContainText(/would have held for \d+ of the \d+ requests sent last/)
  const counted = async () => Number(/held for (\d+) of/.exec(await rule.innerText())?.[1] ?? -1)
  const few = await counted()
  const amount = rule.getByLabel(/^Worth which amount/)
  await amount.fill('a lot')
  await amount.press('Tab')
  await expect(rule).toContainText('“a lot” is not an amount; what was there before stays.')
  await amount.fill('2*25')
  await amount.press('Tab')
  await expect(amount).toHaveValue('50.00')
  await expect.poll(counted).toBeGreaterThan(few)
  await page.getByRole('button', { name: 'Throw the changes away' }).click()
  await expect(amount).toHaveValue('1,000.00')
  await page.context().close()
})

test('whoever is not an administrator finds no Set-up', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/mine')
  await alive(page)
  await expect(page.getByRole('link', { name: 'Set-up' })).toHaveCount(0)
  expect((await page.goto('/set-up/requests'))?.status()).toBe(404)
  await page.context().close()
})

test('a place is typed by keyboard, taken back, and a limit that is changed waits for finance', async ({ browser }) => {
  const harriet = await pageAs(browser, 'Harriet Voss')
  await harriet.goto('/set-up/lists/places')
  await alive(harriet)
  await harriet.keyboard.press('Control+Enter')
  const dialog = harriet.getByRole('dialog')
  await expect(dialog.getByLabel('Name')).toBeFocused()
  await harriet.keyboard.type('Lantern pier')
  // What is missing leads to its field, and nothing is kept.
  await harriet.keyboard.press('Control+Enter')
  await expect(dialog.getByLabel('Street')).toBeFocused()
  for (const text of ['Pier Road 2', '24105', 'Hallamere', 'DE']) {
    await harriet.keyboard.type(text)
    await harriet.keyboard.press('Tab')
  }
  await expect(dialog.locator('.main-action')).toHaveText(/Add Lantern pier/)
  // Pressed twice, it is added once.
  await harriet.keyboard.press('Control+Enter')
  await harriet.keyboard.press('Control+Enter')
  await expect(harriet.getByText('Lantern pier is added.')).toBeVisible()
  await harriet.keyboard.press('Escape')
  await expect(harriet.getByRole('button', { name: 'Lantern pier', exact: true })).toHaveCount(1)
  await harriet.getByRole('button', { name: 'Take that back' }).click()
  await expect(harriet.getByRole('button', { name: 'Lantern pier', exact: true })).toHaveCount(0)

  await harriet.getByRole('link', { name: 'People', exact: true }).click()
  await harriet.getByRole('button', { name: 'Rosa Castell', exact: true }).click()
  await expect(dialog.getByRole('group', { name: 'Raises also for' })).toContainText('Rescue Centre')
  await dialog.getByLabel('Own limit').fill('much')
  await expect(dialog.locator('.main-action')).toHaveText(/One field is missing or wrong/)
  await dialog.getByLabel('Own limit').fill('300')
  await harriet.keyboard.press('Control+Enter')
  await harriet.getByRole('link', { name: 'see what waits' }).click()
  await expect(harriet.getByRole('region', { name: 'What waits for a second person' })).toContainText('Rosa Castell')
  await expect(harriet.getByRole('button', { name: 'put it in force' })).toHaveCount(0)
  const greta = await pageAs(browser, 'Greta Molin')
  await greta.goto('/set-up')
  await alive(greta)
  await greta.getByRole('button', { name: 'put it in force' }).click()
  await expect(greta.getByText('Rosa Castell: it holds from now on.')).toBeVisible()
  // Whoever asked for it sees it go.
  await expect(harriet.getByRole('region', { name: 'What waits for a second person' })).toHaveCount(0)
  await Promise.all([harriet, greta].map((p) => p.context().close()))
})
