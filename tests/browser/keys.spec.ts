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

test('on the Desk keys act on the line that has the focus, and say before what Enter lays', async ({ browser }) => {
  const page = await pageAs(browser, 'Leonie Farrow')
  await page.goto('/desk')
  await alive(page)
  const rows = page.locator('tr[id^="line-"]')
  const said = page.locator('#page-note')
  const marked = page.locator('tr[data-chosen="true"]')
  await expect(rows.first()).toBeVisible()
  const before = await rows.count()
  // With the focus nowhere, neither key does anything.
  await page.keyboard.press('Enter')
  await page.keyboard.press('Space')
  await expect(marked).toHaveCount(0)
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  const second = await rows.nth(1).getAttribute('id')
  await expect(rows.nth(1)).toBeFocused()
  const what = (await rows.nth(1).locator('td').first().innerText()).split('\n')[0] ?? ''
  await expect(said).toContainText(`Enter lays “${what}” on`)
  await page.keyboard.press('Enter')
  await expect(page.locator(`#${second ?? ''}`)).toHaveCount(0)
  await expect(rows).toHaveCount(before - 1)
  // The focus goes on to the line that follows: the next press marks that one, and Enter lays it alone.
  const next = await rows.nth(1).getAttribute('id')
  await expect(rows.nth(1)).toBeFocused()
  await page.keyboard.press('Space')
  await page.keyboard.press('ArrowUp')
  await expect(marked).toHaveCount(1)
  await expect(said).toContainText('Enter lays the marked line on')
  await page.keyboard.press('Enter')
  await expect(page.locator(`#${next ?? ''}`)).toHaveCount(0)
  await expect(rows).toHaveCount(before - 2)
  for (const tray of await page.getByRole('button', { name: 'Put this tray away; its lines go back' }).all())
    await tray.click()
  await page.context().close()
})

test('in the box of Decide the main key asks, or does what words were wanted for; never approves', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Ines Adeyemi')
  const decided: string[] = []
  page.on('request', (r) => {
    if (r.method() === 'POST' && /decisions|questions/.test(r.url())) decided.push(r.url().split('/').at(-1) ?? '')
  })
  await page.goto('/decide')
  await alive(page)
  const box = page.locator('#comment')
  await box.fill('Could it be the smaller one?')
  await expect(page.getByRole('button', { name: 'Ask' }).locator('kbd')).toBeVisible()
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText(/is asked, and hears of it now/)).toBeVisible()
  await expect(box).toHaveValue('')
  await page.getByRole('button', { name: 'Send back' }).click()
  await expect(box).toBeFocused()
  await expect(page.getByRole('button', { name: 'Send back' }).locator('kbd')).toBeVisible()
  await page.keyboard.type('The smaller one, please.')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText(/^Sent back:/)).toBeVisible()
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(page.getByText(/^Sent back:/)).toHaveCount(0)
  expect(decided).toEqual(['questions', 'decisions'])
  await page.context().close()
})

test('leaving the add field takes nothing, and what was typed stays', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/raise')
  await alive(page)
  const add = page.getByRole('combobox', { name: /^Add a line/ })
  await add.fill('quartz')
  await expect(page.getByRole('option').first()).toContainText('Quartz')
  for (const leave of ['Tab', 'Shift+Tab']) {
    await add.focus()
    await expect(page.getByRole('option').first()).toBeVisible()
    await page.keyboard.press(leave)
    await expect(page.getByRole('option')).toHaveCount(0)
    await expect(add).not.toBeFocused()
  }
  await add.focus()
  await page.getByText('Raised by you').click()
  await expect(page.getByRole('option')).toHaveCount(0)
  await expect(add).toHaveValue('quartz')
  await expect(page.getByRole('textbox', { name: /^Line 1/ })).toHaveCount(0)
  // A press on what is offered takes it, as before.
  await add.focus()
  await page.getByRole('option').first().click()
  await expect(page.getByRole('textbox', { name: /^Line 1/ }).first()).toBeVisible()
  await page.context().close()
})

test('a slash finds from the empty add field, Escape leaves at once, and F1 opens over nothing', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/raise')
  await alive(page)
  const add = page.getByRole('combobox', { name: /^Add a line/ })
  await add.fill('1')
  await page.keyboard.press('/')
  await expect(add).toHaveValue('1/')
  await add.fill('')
  await page.keyboard.press('/')
  const find = page.getByRole('combobox', { name: 'Find by a number or words' })
  await expect(find).toBeFocused()
  await page.keyboard.type('quartz')
  await expect(page.getByRole('dialog').getByRole('option').first()).toBeVisible()
  await page.keyboard.press('F1')
  await expect(page.getByRole('dialog')).toHaveCount(1)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(add).toBeFocused()
  await page.context().close()
})

test('a day is typed, also from the sentence itself', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/raise')
  await alive(page)
  const day = page.getByRole('button', { name: /which day$/ })
  await day.focus()
  await page.keyboard.type('31 dec')
  await expect(page.getByRole('dialog').getByRole('status')).toContainText('31 December')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page.getByRole('button', { name: /31 December/ })).toBeFocused()
  await page.context().close()
})

// Somebody whose requests no other test decides.
test('the focus goes on to what stands in the place of what went away', async ({ browser }) => {
  const page = await pageAs(browser, 'Bryn Tolliver')
  await page.goto('/mine')
  await alive(page)
  await page.getByRole('link', { name: 'Nets for the outdoor pens', exact: true }).first().click()
  await page.waitForURL(/\/trail\//)
  await page.getByRole('button', { name: 'Withdraw' }).focus()
  await page.keyboard.press('Enter')
  const again = page.getByRole('link', { name: /Change it and send it again/ })
  await expect(again).toBeVisible()
  await expect(page.getByRole('button', { name: 'Withdraw' })).toHaveCount(0)
  await expect.poll(() => page.evaluate(() => document.activeElement?.closest('.page-foot') !== null)).toBe(true)
  await page.context().close()
})

test('on a low screen nothing fixed hides what has the focus', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh', { viewport: { width: 640, height: 400 } })
  await page.goto('/raise')
  await alive(page)
  await page.locator('#page').focus()
  const hidden: string[] = []
  for (let i = 0; i < 25; i += 1) {
    await page.keyboard.press('Tab')
    const over = await page.evaluate(() => {
      const at = document.activeElement
      if (at === null || at === document.body || at.closest('header') !== null) return null
      const box = at.getClientRects()[0] ?? at.getBoundingClientRect()
      const top = document.elementFromPoint(box.x + Math.min(box.width / 2, 40), box.y + Math.min(box.height / 2, 10))
      return top === null || at.contains(top) || top.contains(at)
        ? null
        : `${at.outerHTML.slice(0, 60)} under ${top.className}`
    })
    if (over !== null) hidden.push(over)
  }
  expect(hidden).toEqual([])
  await page.context().close()
})
