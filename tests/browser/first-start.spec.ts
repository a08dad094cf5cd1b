import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { alive, EMPTY_OF, expect, POST_OF, test, watched } from './setup/as'
import { Keys } from './setup/keys'

const YEAR = new Date().getUTCFullYear()
/** Four files as they come out of spreadsheets: headings of their own, and columns that nobody asked for. */
const FILES: readonly { list: string; place: string; name: string; text: string; takes: RegExp }[] = [
  {
    list: 'accounts',
    place: 'Accounts',
    name: 'accounts.csv',
    text: 'Code;Description\n4100;Plants and soil\n4200;Tools\n',
    takes: /^Add two accounts/,
  },
  {
    list: 'people',
    place: 'People',
    name: 'staff.csv',
    text:
      'Full name,E-mail,Cost centre,Reports to,Own limit,Shoe size\n' +
      'Bo Lind,bo.lind@weirside.example,100,Asta Holm,,43\n' +
      'Eva Krog,eva.krog@weirside.example,Office,Asta Holm,500,38\n',
    takes: /^Add two people/,
  },
  {
    list: 'budget-lines',
    place: 'Budget lines',
    name: 'budgets.csv',
    text:
      'Year,Cost centre,Account,Budget line,Amount,Control\n' +
      `${YEAR},100,4100,Garden,"50,000.00",refuses\n${YEAR},100,4200,Tools,8000,tells\n`,
    takes: /^Add two budget lines/,
  },
  {
    list: 'suppliers',
    place: 'Supplier list',
    name: 'creditors.csv',
    text: 'Creditor,Company,Currency,Mail,Street,City\n7,Fenwick Nursery,DKK,post@fenwick.example,Road 1,Ry\n',
    takes: /^Add one supplier/,
  },
]

async function check(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze()
  const grave = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
  expect(grave.map((v) => [v.id, ...v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160))])).toEqual([])
}
const main = (page: Page) => page.locator('.main-action').last()

test('an empty database becomes a working organisation by keyboard and four files, and its first order leaves', async ({
  browser,
}) => {
  const url = new URL(EMPTY_OF())
  const page = watched(await (await browser.newContext({ baseURL: url.origin })).newPage())
  const keys = new Keys(page)
  await page.goto(url.href)
  await alive(page)
  await expect(page.getByRole('textbox', { name: 'Organisation' })).toBeFocused()
  const choose = async (name: string, typed: string) => {
    await expect(page.getByRole('button', { name: new RegExp(`^${name}`) })).toBeFocused()
    await keys.press('Enter')
    await expect(page.getByRole('listbox', { name })).toBeFocused()
    await page.keyboard.type(typed, { delay: 5 })
    await keys.press('Enter')
    // Chosen, the list gives the focus back.
    await expect(page.getByRole('button', { name: new RegExp(`^${name}`) })).toBeFocused()
  }
  const write = async (...texts: string[]) => {
    for (const text of texts) {
      await page.keyboard.type(text)
      await keys.press('Tab')
    }
  }
  await write('Weirside Trust', 'Mill Lane 4', '8021', 'Weirside')
  await choose('Country', 'denmark')
  await keys.press('Tab')
  await choose('Currency', 'danish')
  await keys.press('Tab')
  await choose('Time zone', 'europe/copen')
  await keys.press('Tab', 'Tab')
  await write('25', '', 'orders@weirside.example')
  await write('Asta Holm', 'asta.holm@weirside.example', 'Office', '100', '100,000')
  await page.keyboard.type('grey heron over the weir')
  await check(page)
  await expect(main(page)).toHaveText(/^Begin Rekko for Weirside Trust/)
  await keys.press('Control+Enter')
  await page.waitForURL('**/set-up')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(
    'Three things are missing before the first request can be sent.',
  )
  await check(page)

  for (const { list, place, name, text, takes } of FILES) {
    await keys.click(page.getByRole('link', { name: place, exact: true }).first())
    await page.waitForURL(`**/set-up/lists/${list}`)
    // By its label: the place before it may still be on its way out.
    const chooser = page.getByLabel(new RegExp(`^A file of ${list.replace('-', ' ')}`))
    await chooser.setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
    const dialog = page.getByRole('dialog')
    await expect(dialog.locator('.main-action')).toHaveText(takes)
    if (list === 'people') await check(page)
    await keys.press('Control+Enter')
    await expect(dialog).toHaveCount(0)
  }
  await keys.click(page.getByRole('link', { name: 'What is missing', exact: true }))
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Requests and orders work;')
  await keys.press('Control+Enter')
  await expect(page.getByText('Two invitations are on the way', { exact: false })).toBeVisible()

  const bo = watched(await (await browser.newContext({ baseURL: url.origin })).newPage())
  const own = new Keys(bo)
  let link = ''
  await expect
    .poll(async () => {
      const mails = (await (await bo.request.get(`${POST_OF()}/messages.json`)).json()) as {
        to: string
        text: string
      }[]
      const mail = mails.find((m) => m.to.includes('bo.lind@weirside.example'))
      link = /\/password\?key=\S+/.exec(mail?.text ?? '')?.[0] ?? ''
      return link
    })
    .not.toBe('')
  await bo.goto(link)
  await alive(bo)
  await bo.getByLabel('Password').fill('three snails on a wall')
  await check(bo)
  await own.press('Enter')
  await bo.waitForURL('**/raise')
  await alive(bo)
  await expect(bo.getByRole('combobox', { name: /^Add a line/ })).toBeFocused()
  await bo.keyboard.type('10 potting soil 39.50')
  await expect(bo.getByRole('option').first()).toContainText('as a line of your own')
  await own.press('Enter')
  await expect(bo.getByLabel(/Line 1: paid from/)).toBeVisible()
  await own.to(/Line 1: paid from/)
  await bo.keyboard.type('gar')
  await expect(bo.getByRole('option').first()).toContainText('Garden')
  await own.press('Enter')
  await own.to(/Line 1: supplier/)
  await bo.keyboard.type('fenw')
  await expect(bo.getByRole('option', { name: /Fenwick Nursery/ })).toBeVisible()
  await own.press('Enter')
  await own.to(/^Why it is needed/)
  await bo.keyboard.type('the beds are empty')
  await own.to(/^Needed by/)
  await own.press('Enter', 'ArrowDown', 'Enter')
  await expect(bo.locator('.main-action')).toHaveText(/Send to Asta Holm for a decision/)
  await own.press('Control+Enter')
  await bo.waitForURL(/\/trail\//)

  await keys.click(page.getByRole('link', { name: /^Decision/ }))
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Bo Lind asks for DKK 493.75')
  await keys.press('Control+Enter')
  await expect(bo.getByRole('heading', { level: 1 })).toContainText('approved')
  await page.goto('/desk')
  await alive(page)
  await page.locator('tr[id^="line-"]').first().focus()
  await keys.press('Enter')
  await expect(page.getByRole('region', { name: 'Tray for Fenwick Nursery' })).toBeVisible()
  await keys.press('Control+Enter')
  await expect
    .poll(async () => {
      const mails = (await (await page.request.get(`${POST_OF()}/messages.json`)).json()) as { to: string }[]
      return mails.some((m) => m.to.includes('post@fenwick.example'))
    })
    .toBe(true)
  console.log(`from nothing to an order, presses besides the texts: ${keys.count} and ${own.count} of the requester's`)
  await page.context().close()
  await bo.context().close()
})
