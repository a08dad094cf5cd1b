import { alive, expect, focusIn, pageAs, test } from './setup/as'
import { Keys } from './setup/keys'

const RANGE = [
  ['Part no', 'What', 'Qty', 'Unit', 'Price'],
  ['CP-QS-25', 'Quartz sleeve', '6', 'pcs', ''],
  ['st-hc-60', 'Hose clip', '40', 'each', ''],
  ['', 'Rope for the winch, hand laid', '2', 'roll', '€ 42.00'],
  ['', 'Hire of a hoist', '1.5', 'days', '110'],
  ['', 'Marking of the valves', '12', 'each', '4.25'],
  ['', 'Antifouling paint', 'many', 'each', '88'],
  ['', 'Clean the sump', '3', 'hours', '38'],
]
  .map((r) => r.join('\t'))
  .join('\n')

test('ten mixed lines by keyboard alone: four typed, six of a pasted range, one divided, one quote', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Owen Marsh', { permissions: ['clipboard-read', 'clipboard-write'] })
  const keys = new Keys(page)
  await page.goto('/raise')
  await alive(page)
  await expect(page.getByRole('combobox', { name: /^Add a line/ })).toBeFocused()
  for (const [typed, first] of [
    ['6 cp-uv-80a', 'Ultraviolet lamp 80 W'],
    ['4 cp-gs-25', 'Gland seal'],
    ['2 cp-ssk-28', 'Shaft seal kit'],
    ['Take away old lamps 140', 'line of your own'],
  ] as const) {
    await keys.type(typed)
    await expect(page.getByRole('option').first()).toContainText(first)
    await keys.press('Enter')
  }
  // Waited for from here on, so that the browser hands it over the moment it opens.
  const chooser = page.waitForEvent('filechooser', { timeout: 60_000 })
  await page.evaluate((text) => navigator.clipboard.writeText(text), RANGE)
  await keys.press('Control+v')
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('heading')).toHaveText('Seven rows from what you pasted: is this what they mean?')
  await expect(dialog.getByRole('row', { name: /Antifouling paint/ })).toContainText('“many” is not a quantity.')
  await expect(dialog.locator('.main-action')).toHaveText(/Take six lines and leave one out/)
  await keys.press('Control+Enter')
  await expect(page.getByText('Six lines are on the list.')).toBeVisible()
  const lines = page.locator('tr[id^="line-"]')
  await expect(lines).toHaveCount(10)
  // What has a part number of the catalogue is that item, with its price and its budget line.
  await expect(lines.nth(4)).toContainText('CP-QS-25')
  await expect(lines.nth(4)).toContainText('189.00')
  await expect(lines.nth(5).getByLabel('Line 6: paid from')).toHaveValue('Tools and wear')
  await expect(lines.nth(6).getByLabel('Line 7: how many')).toHaveValue('2')

  await keys.to(/Line 10: paid from/)
  await keys.type('sev')
  await expect(page.getByRole('option').first()).toContainText('Several of them')
  await keys.press('Enter')
  await expect(page.getByLabel('Divided by')).toBeFocused()
  await keys.press('Tab', 'Tab')
  await keys.type('60')
  await keys.press('Tab')
  await expect(page.getByRole('group', { name: /What pays for Clean the sump/ })).toContainText('40 %')
  await expect(page.getByRole('group', { name: /What pays for Clean the sump/ })).toContainText('68.40')
  await keys.press('Escape')
  await expect(page.getByRole('combobox', { name: /Line 10: paid from/ })).toBeFocused()

  await keys.to(/^Attach a quote/, 'Tab')
  await keys.press('Enter')
  await (
    await chooser
  ).setFiles({
    name: 'Hoist quote.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.4\n1 0 obj<<>>endobj\ntrailer<<>>\n%%EOF'),
  })
  await expect(page.getByRole('listbox', { name: 'Hoist quote.pdf is a' })).toBeVisible()
  await keys.press('Enter')
  await expect(page.getByRole('button', { name: 'Hoist quote.pdf is a: quote' })).toBeFocused()

  // The main action leads to what is missing, one after the other.
  await keys.press('Control+Enter', 'Enter', 'ArrowDown', 'Enter', 'Control+Enter')
  await keys.type('the sump pumps are due for their overhaul')
  await expect(page.locator('.main-action')).toHaveText(/Send to Ines Adeyemi for a decision/)
  await keys.press('Control+Enter')
  await page.waitForURL(/\/trail\//)
  console.log(`ten lines, key presses besides the texts: ${keys.count}`)
  expect(keys.count).toBeLessThan(60)
  await page.context().close()
})

test('lines out and in again: copied to a spreadsheet, taken from a file, taken off with an undo, moved', async ({
  browser,
}) => {
  const page = await pageAs(browser, 'Owen Marsh', { permissions: ['clipboard-read', 'clipboard-write'] })
  await page.goto('/raise')
  await alive(page)
  const file = (name: string, text: string) =>
    page.getByLabel('A file of lines').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await file('broken.csv', 'What,Qty\n"Hose,2\n')
  await expect(page.getByRole('alert')).toHaveText(
    'broken.csv: This CSV is broken in or before line 2: a quotation mark is never closed.',
  )
  await file('parts.csv', 'Menge;Was\n3;=Hose, blue\n2;Rope\n')
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('heading')).toHaveText('Two rows from parts.csv: is this what they mean?')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('combobox', { name: /^Add a line/ })).toBeFocused()

  await file('parts.csv', 'Qty;What\n3;=Hose, blue\n2;Rope\n')
  await expect(dialog).toContainText('It began like a formula; its sign is left out.')
  await page.getByLabel('Column 1 holds').selectOption('price of one')
  await expect(dialog.getByRole('row', { name: /Rope/ })).toContainText('2.00')
  await page.getByLabel('Column 1 holds').selectOption('how many')
  await page.getByRole('button', { name: /Take two lines/ }).click()
  const what = page.getByRole('textbox', { name: /^Line \d+: what$/ })
  await expect(what).toHaveCount(2)
  await expect(what.first()).toHaveValue('Hose, blue')
  await page.getByRole('button', { name: 'Take them off again' }).click()
  await expect(what).toHaveCount(0)

  await file('parts.csv', 'Qty;What\n3;Hose\n2;Rope\n')
  await page.getByRole('button', { name: /Take two lines/ }).click()
  await expect(page.getByRole('combobox', { name: /^Add a line/ })).toBeFocused()
  await what.nth(1).focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect(what.first()).toHaveValue('Rope')
  await expect(what.first()).toBeFocused()
  // A quantity that is still being typed goes with its line.
  await page.getByLabel('Line 1: how many').fill('4')
  await page.keyboard.press('Alt+ArrowDown')
  await expect(page.getByLabel('Line 2: how many')).toHaveValue('4')
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.getByLabel('Line 1: how many')).toHaveValue('4')
  await page.getByRole('button', { name: 'copy the lines' }).click()
  await expect(page.getByText('copied, with their headings')).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(
    [
      'Description\tPart number\tQuantity\tUnit\tPrice\tSupplier\tPaid from\tNeeded by',
      'Rope\t\t4\teach\t\t\t\t',
      'Hose\t\t3\teach\t\t\t\t',
    ].join('\n'),
  )
  await page.context().close()
})

test('what is being typed in a line stays when something else of it comes meanwhile', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/raise')
  await alive(page)
  let answer = (): void => undefined
  const held = new Promise<void>((resolve) => (answer = resolve))
  await page.route('**/api/account-proposal?*', async (route) => {
    await held
    await route.fulfill({ json: { account: '616' } })
  })
  await page.getByRole('combobox', { name: /^Add a line/ }).fill('Empty the skip 140')
  await page.getByRole('option', { name: /as a line of your own/ }).click()
  const [many, price] = [page.getByLabel('Line 1: how many'), page.getByLabel(/^Line 1: price of one/)]
  await many.focus()
  await page.keyboard.type('7')
  answer()
  await expect(page.getByLabel('Line 1: paid from')).toHaveValue('Waste')
  await expect(many).toHaveValue('7')
  await page.keyboard.press('Tab')
  await expect(page.locator('tr[id^="line-"]').first()).toContainText('980.00')
  // Typed back to what it was, nothing changes.
  await price.fill('9')
  await price.fill('140.00')
  await page.keyboard.press('Tab')
  await expect(page.locator('tr[id^="line-"]').first()).toContainText('980.00')
  await page.context().close()
})

test('a range says what pays, who delivers and by when; the rest takes the same in one press', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/raise')
  await alive(page)
  const add = page.getByRole('combobox', { name: /^Add a line/ })
  for (const words of ['Mend the awning 140', 'Sweep the yard 90', 'Wash the van 35']) {
    await add.fill(words)
    await page.getByRole('option', { name: /as a line of your own/ }).click()
  }
  await page.getByLabel('A file of lines').setInputFiles({
    name: 'parts.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      [
        'What;Qty;Account;Supplier;Needed by',
        'Hoist;1;610 60, ozone 40;Corrigan Pumps;31.12.2099',
        'Rope;2;ropes;Nobody at all;',
      ].join('\n'),
    ),
  })
  const dialog = page.getByRole('dialog')
  const [hoist, rope] = [dialog.getByRole('row', { name: /Hoist/ }), dialog.getByRole('row', { name: /Rope/ })]
  await expect(hoist).toContainText('Corrigan Pumps')
  await expect(hoist).toContainText('by Thursday 31 December 2099')
  await expect(rope).toContainText('What pays is not clear from “ropes”; it goes with the line above.')
  await expect(rope).toContainText('No one supplier is called “Nobody at all”; the buyer decides.')
  await page.getByRole('button', { name: /Take two lines/ }).click()
  await expect(page.getByLabel('Line 4: paid from')).toHaveValue('60 % Pumps and filters · 40 % Ozone')
  const lines = page.locator('tr[id^="line-"]')
  await expect(page.getByRole('combobox', { name: 'Line 4: supplier' })).toHaveValue('Corrigan Pumps')
  await expect(lines.nth(3)).toContainText('by Thursday 31 December 2099')

  // A division is typed where one payer is chosen, and the lines that have none take it over.
  const payer = page.getByLabel('Line 1: paid from')
  await payer.fill('616 70; tools')
  await expect(page.getByRole('option').first()).toContainText('70 % Waste · 30 % Tools and wear')
  await page.keyboard.press('Enter')
  await expect(payer).toHaveValue('70 % Waste · 30 % Tools and wear')
  await lines.nth(0).getByRole('button', { name: 'the same for the other 2 without' }).click()
  await expect(page.getByLabel('Line 3: paid from')).toHaveValue('70 % Waste · 30 % Tools and wear')
  await page.getByRole('button', { name: 'Take it off again' }).click()
  await expect(page.getByLabel('Line 3: paid from')).toHaveValue('')

  // So does a supplier.
  await page.getByRole('button', { name: 'More about line 4' }).click()
  await page.getByRole('button', { name: 'Corrigan Pumps for the other 4 lines without a supplier' }).click()
  await expect(page.getByRole('combobox', { name: 'Line 1: supplier' })).toHaveValue('Corrigan Pumps')
  await page.getByRole('button', { name: 'Take it off again' }).click()
  await expect(page.getByRole('combobox', { name: 'Line 1: supplier' })).toHaveValue('buyer decides who')

  // A line's own day, and back to the day of the rest.
  await page.getByRole('button', { name: 'with the rest', exact: true }).click()
  await expect(page.getByRole('button', { name: /^Line 4: needed by/ })).toBeFocused()
  await expect(lines.nth(3)).not.toContainText('2099')
  await page.context().close()
})

test('Mine is kept as a file of what is shown', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/mine?view=drafts')
  await alive(page)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'XLSX', exact: true }).click(),
  ])
  expect(download.suggestedFilename()).toBe('mine.xlsx')
  const [lines] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Lines as CSV' }).click(),
  ])
  expect(lines.suggestedFilename()).toBe('mine-lines.csv')
  await page.context().close()
})

test('Find leads from a part of a number to the trail, and from the catalogue to a line', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/mine')
  await alive(page)
  await page.keyboard.press('/')
  const field = page.getByRole('combobox', { name: 'Find by a number or words' })
  await expect(field).toBeFocused()
  await page.keyboard.type('xyzzy qwrtp')
  await expect(page.getByRole('dialog')).toContainText('Nothing that you may see has')
  await field.fill('sea salt')
  await expect(page.getByRole('option').first()).toContainText(/salt/i)
  await page.keyboard.press('Enter')
  await page.waitForURL(/\/(trail|raise)\//)
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /^Find/ }).click()
  await page.keyboard.type('quartz slev')
  await page.getByRole('option', { name: /CP-QS-25/ }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Quartz sleeve, 25 mm')
  await expect(page.locator('.main-action')).toHaveText(/1 each/)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('One line is on the request.')).toBeVisible()
  await page.getByRole('button', { name: 'Take it off again' }).click()
  await expect(page.getByText('One line is on the request.')).toBeHidden()
  await page.context().close()
})

test('an owner hands over by name; the trail says who owns it now', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/mine?view=open')
  await alive(page)
  await page.locator('a[href^="/trail/"]').first().click()
  // The focus is in the form that the button makes room for, on the button again when it is left, and in its place at
  // the end.
  const begin = page.getByRole('button', { name: 'Hand over' })
  const who = page.getByRole('combobox', { name: 'Who owns it from now on' })
  await begin.press('Enter')
  await expect(who).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(begin).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(who).toBeFocused()
  await page.keyboard.type('rosa')
  await expect(page.getByRole('option', { name: /Rosa Castell/ })).toBeVisible()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Hand over to Rosa Castell' }).press('Enter')
  await expect(page.getByText('handed it over to Rosa Castell')).toBeVisible()
  await focusIn(page.locator('.page-foot'))
  await page.context().close()
})

test('a requisition is raised for a colleague: the margin shows their route, and they own it', async ({ browser }) => {
  const page = await pageAs(browser, 'Owen Marsh')
  await page.goto('/raise')
  await alive(page)
  await page.getByRole('button', { name: 'For whom: yourself' }).click()
  await page.getByRole('option', { name: /Rosa Castell/ }).click()
  await page.getByRole('combobox', { name: /^Add a line/ }).fill('2 cp-gs-25')
  await expect(page.getByRole('option').first()).toContainText('Gland seal')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Rosa Castell’s manager/)).toBeVisible()
  await page.keyboard.press('Control+Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Control+Enter')
  await page.keyboard.type('Rosa is on the boat and needs them on Monday')
  await expect(page.locator('.main-action')).toHaveText(/Send to .* for a decision/)
  await page.keyboard.press('Control+Enter')
  await page.waitForURL(/\/trail\//)
  await expect(page.locator('#page-note').getByText(/^R-\d\d-\d{5} · owner Rosa Castell/)).toBeVisible()
  await page.context().close()
})
