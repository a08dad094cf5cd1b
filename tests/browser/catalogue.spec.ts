import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, test } from './setup/as'

test('things are found and added to a request by keyboard, and taken off again', async ({ browser }) => {
  const sorrel = await pageAs(browser, 'Sorrel Quist')
  await sorrel.goto('/catalogue')
  await alive(sorrel)
  await expect(sorrel.getByRole('searchbox', { name: 'Find in the catalogue' })).toBeFocused()
  await sorrel.keyboard.type('winch rope')
  const first = sorrel.getByRole('list', { name: 'Items' }).getByRole('listitem').first()
  await expect(first).toContainText(/rope/i)
  const main = sorrel.locator('.main-action')
  const note = sorrel.locator('#page-note')
  await expect(note).toContainText('one line')
  await sorrel.keyboard.press('ArrowDown')
  // What is no number is said and never added.
  await sorrel.keyboard.type('many')
  await expect(main).toHaveText(/One quantity is no number/)
  await sorrel.keyboard.press('Control+Enter')
  await expect(main).toHaveText(/One quantity is no number/)
  await sorrel.keyboard.press('Control+a')
  await sorrel.keyboard.type('3')
  await expect(main).toHaveText(/^Add 3 .* to “/)
  await sorrel.keyboard.press('Control+Enter')
  await expect(sorrel.getByText('One line is on the request.')).toBeVisible()
  await expect(main).toHaveText(/Type how many you need/)
  // Sorrel has a draft with one line.
  await expect(note).toContainText('two lines')
  await sorrel.getByRole('button', { name: 'Take it off again' }).click()
  await expect(note).toContainText('one line')

  // Two at once; the key held down adds them once.
  await sorrel.getByRole('searchbox').fill('rope')
  await expect(sorrel).toHaveURL(/words=rope/)
  await sorrel.getByRole('searchbox').press('ArrowDown')
  await sorrel.keyboard.type('2')
  await sorrel.keyboard.press('ArrowDown')
  await sorrel.keyboard.type('4')
  await expect(main).toHaveText(/two things/)
  await sorrel.keyboard.down('Control')
  for (let i = 0; i < 4; i += 1) await sorrel.keyboard.down('Enter')
  await sorrel.keyboard.up('Enter')
  await sorrel.keyboard.up('Control')
  await expect(note).toContainText('three lines')
  await note.getByRole('link').click()
  await expect(sorrel).toHaveURL(/\/raise\//)
  await expect(sorrel.getByRole('textbox', { name: /^Line \d+: how many/ })).toHaveCount(3)
})

test('side by side, an item whole, and another price from a day on', async ({ browser }) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/catalogue?words=pvc+63')
  await alive(leonie)
  await leonie.getByRole('searchbox').press('ArrowDown')
  await leonie.keyboard.press('Space')
  await leonie.keyboard.press('ArrowDown')
  await leonie.keyboard.press('Space')
  await leonie.getByRole('link', { name: /side by side/ }).click()
  await expect(leonie.getByRole('button', { name: /^Take 1 of/ })).toHaveCount(2)
  await leonie.getByRole('textbox', { name: 'For how many' }).fill('6')
  await expect(leonie.getByText('costs the least')).toBeVisible()
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])
  await leonie.getByRole('link', { name: 'Pipe, PVC, 63 mm, 3 m' }).click()
  await expect(leonie.getByRole('heading', { level: 1 })).toContainText('21.80 each')
  await leonie.getByRole('textbox', { name: 'How many' }).fill('6')
  await expect(leonie.getByText('4 more, and each costs 19.60')).toBeVisible()
  await leonie.getByRole('textbox', { name: 'Prices by quantity' }).fill('dear')
  await leonie.getByRole('button', { name: 'Set this price' }).click()
  await expect(leonie.getByRole('alert')).toContainText('no price')
  await leonie.getByRole('textbox', { name: 'Prices by quantity' }).fill('22; 10: 20')
  await leonie.getByRole('button', { name: 'Set this price' }).click()
  await expect(leonie.getByRole('heading', { level: 1 })).toContainText('22.00 each')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])
  await leonie.getByRole('link', { name: 'kept in the item list' }).click()
  await expect(leonie.getByRole('textbox', { name: 'Prices from today' })).toHaveValue('1: 22; 10: 20')
})

test('packs are told with their sum, and pictures are added, put first and taken away', async ({ browser }) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/catalogue?words=ST-HC-60')
  await alive(leonie)
  await leonie.getByRole('list', { name: 'Items' }).getByRole('link').first().click()
  await expect(leonie).toHaveURL(/catalogue\/[0-9a-f-]{36}/)
  const margin = leonie.getByRole('textbox', { name: 'How many', exact: false })
  await expect(margin).toHaveValue('1')
  await margin.fill('30')
  await expect(leonie.getByText('Two packs of 25 hold 50 each, for EUR 95.00.')).toBeVisible()
  await leonie.getByRole('button', { name: 'Take 50' }).click()
  await expect(margin).toHaveValue('50')
  await expect(leonie.getByText('Two packs of 25.', { exact: true })).toBeVisible()

  const picture = (tail: string) => ({
    name: `tie ${tail}.png`,
    mimeType: 'image/png',
    buffer: Buffer.concat([
      Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      ),
      Buffer.from(tail),
    ]),
  })
  const chooser = leonie.getByLabel('Pictures of the item')
  await chooser.setInputFiles({ name: 'words.png', mimeType: 'image/png', buffer: Buffer.from('words') })
  await expect(leonie.getByRole('alert')).toContainText('by its content this is neither')
  await chooser.setInputFiles([picture('one'), picture('two')])
  await expect(leonie.getByRole('img', { name: /picture 1 of 2$/ })).toBeVisible()
  await leonie.getByRole('button', { name: 'Look at picture 2' }).click()
  await leonie.getByRole('button', { name: 'Let this one stand for it' }).click()
  const { violations } = await new AxeBuilder({ page: leonie }).analyze()
  expect(violations).toEqual([])
  const owen = await pageAs(browser, 'Owen Marsh')
  await owen.goto(new URL(leonie.url()).pathname)
  await expect(owen.getByRole('img', { name: /picture 1 of 2$/ })).toBeVisible()
  await expect(owen.getByRole('button', { name: 'Take this one away' })).toHaveCount(0)
  await leonie.getByRole('button', { name: 'Take this one away' }).click()
  // One at a time: a press while the first is under way does nothing.
  await expect(leonie.getByRole('img', { name: /picture 1 of 1$/ })).toBeVisible()
  await leonie.getByRole('button', { name: 'Take this one away' }).click()
  await expect(leonie.getByRole('button', { name: 'Add a picture' })).toBeVisible()
})
