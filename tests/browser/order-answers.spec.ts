import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, POST_OF, test, URL_OF, watched } from './setup/as'

test('an order is issued, its mail is answered otherwise, and the buyer agrees: a revision says so', async ({
  browser,
}) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/desk/proposals')
  await alive(leonie)
  await leonie.getByRole('checkbox', { name: 'Take all' }).uncheck()
  await leonie.getByRole('checkbox', { name: /^Take the order to Østervig Net and Rope/ }).check()
  await leonie.getByRole('button', { name: 'Lay the order on a tray' }).click()
  await leonie.getByRole('button', { name: /^Issue and e-mail to Østervig Net and Rope/ }).click()
  const done = leonie.getByRole('status').filter({ hasText: 'is issued to Østervig' })
  const number = /P-\d\d-\d{5}/.exec(await done.innerText())?.[0] ?? ''
  await done.getByRole('link', { name: 'See the order' }).click()
  const answers = leonie.getByRole('region', { name: /^What Østervig Net and Rope answered/ })
  await expect(answers).toContainText('Nothing yet.')

  let link = ''
  await expect
    .poll(
      async () => {
        const mails = (await (await leonie.request.get(`${POST_OF()}/messages.json`)).json()) as {
          subject: string
          text: string
        }[]
        link = /\/answer\?key=\S+/.exec(mails.find((m) => m.subject.includes(number))?.text ?? '')?.[0] ?? ''
        return link
      },
      { timeout: 30_000 },
    )
    .not.toBe('')
  // Nobody who is signed in: the supplier, with nothing but the address.
  const supplier = watched(await (await browser.newContext({ baseURL: URL_OF() })).newPage())
  await supplier.goto(link)
  await alive(supplier)
  await expect(supplier.getByRole('heading', { level: 1 })).toContainText(`${number} is yours to answer`)
  expect((await new AxeBuilder({ page: supplier }).analyze()).violations).toEqual([])
  await supplier.reload()
  await alive(supplier)
  await expect(supplier.getByRole('button', { name: 'Say your name' })).toBeVisible()
  await supplier.getByRole('button', { name: 'Say your name' }).click()
  await expect(supplier.getByLabel('Your name')).toBeFocused()
  await supplier.keyboard.type('Jo Berg')
  await expect(supplier.getByRole('button', { name: 'Yes, we deliver as ordered' })).toBeVisible()
  const many = supplier.getByRole('textbox', { name: /^How many of/ }).first()
  await many.fill('some')
  await expect(supplier.getByText('“some” is no quantity.')).toBeVisible()
  await supplier
    .getByRole('button', { name: / does not come$/ })
    .first()
    .click()
  await supplier.getByLabel('What else there is to say').fill('It is not made any more')
  await supplier
    .getByRole('button', { name: /^Send this answer, with lines that do not come|^Refuse the order/ })
    .click()
  await expect(supplier.getByRole('status')).toContainText('Leonie Farrow is told')
  await expect(supplier.getByRole('button', { name: 'Answer it anew' })).toBeVisible()

  // Her page follows by itself.
  const waits = leonie.getByRole('region', { name: 'What the supplier answered', exact: true })
  await expect(waits).toContainText('“It is not made any more”', { timeout: 15_000 })
  await expect(waits).toContainText('does not come')
  expect((await new AxeBuilder({ page: leonie }).analyze()).violations).toEqual([])
  await waits.getByRole('button', { name: 'Say no, and why' }).click()
  await expect(leonie.getByLabel('Why not, for the supplier')).toBeFocused()
  await leonie.keyboard.type('Please look in your other store')
  await waits.getByRole('button', { name: 'Tell them no' }).click()
  await expect(leonie.getByText('is told that it stands as it was sent.')).toBeVisible()

  await supplier.reload()
  await alive(supplier)
  await expect(supplier.getByText('“Please look in your other store”')).toBeVisible()
  await supplier.getByRole('button', { name: /^Send this answer|^Refuse the order/ }).click()
  await expect(supplier.getByRole('status')).toContainText('Leonie Farrow is told')

  await expect(waits).toBeVisible({ timeout: 15_000 })
  await waits.getByRole('button', { name: /^Agree: / }).click()
  await expect(leonie.getByText(new RegExp(`${number} is (changed as it was answered|cancelled)`))).toBeVisible()
  await expect(answers).toContainText('it holds')
  await supplier.reload()
  await alive(supplier)
  await expect(supplier.getByRole('heading', { level: 1 })).toContainText(/is answered\. Thank you|is over/)
})

test('orders without an answer are found, their suppliers asked once more, and what one says is typed in', async ({
  browser,
}) => {
  const leonie = await pageAs(browser, 'Leonie Farrow')
  await leonie.goto('/orders?whose=own&state=unanswered')
  await alive(leonie)
  const rows = leonie.getByRole('row').filter({ has: leonie.getByRole('link', { name: /^P-/ }) })
  expect(await rows.count()).toBeGreaterThan(0)
  const ask = leonie.getByRole('button', { name: /^Ask (its supplier|the suppliers of these)/ })
  await ask.click()
  await expect(leonie.getByRole('status')).toContainText(/asked once more for an answer/)
  // While it is at it, a press does nothing.
  await expect(ask).toHaveAttribute('aria-busy', 'false')
  await ask.click()
  await expect(leonie.getByRole('status')).toContainText('All of them were asked today already')
  await rows.last().getByRole('link').click()
  await expect(leonie.getByRole('region', { name: /answered$/ })).toContainText('Asked once more')
  await leonie.getByRole('button', { name: 'Type in what they said' }).click()
  await leonie.getByLabel('Who said so').fill('Jo, by telephone')
  await leonie.getByRole('button', { name: 'All comes as ordered' }).click()
  await expect(leonie.getByText('The order is acknowledged.')).toBeVisible()
  await expect(leonie.getByRole('region', { name: /answered$/ })).toContainText('typed in by the buyer')
})
