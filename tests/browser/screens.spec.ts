import AxeBuilder from '@axe-core/playwright'
import { alive, expect, pageAs, POST_OF, test, URL_OF } from './setup/as'

// The fiscal year of the demo begins in April.
const [YEAR = 0, MONTH = 0] = new Date().toISOString().split('-').map(Number)
const LAST_YEAR = (MONTH >= 4 ? YEAR : YEAR - 1) - 1
const SCREENS: [who: string, path: string][] = [
  ['Owen Marsh', '/raise'],
  ['Owen Marsh', '/mine'],
  ['Owen Marsh', '/regulars'],
  ['Ines Adeyemi', '/decide'],
  ['Signe Aalto', '/decide'],
  ['Harriet Voss', '/away'],
  ['Owen Marsh', '/account'],
  ['Harriet Voss', '/set-up'],
  ['Harriet Voss', '/set-up/lists/people'],
  ['Greta Molin', '/set-up/lists/budget-lines'],
  ['Harriet Voss', '/set-up/requests'],
  ['Leonie Farrow', '/desk'],
  ['Leonie Farrow', '/desk/proposals'],
  ['Leonie Farrow', '/orders'],
  ['Tomas Brandt', '/budgets'],
  ['Greta Molin', '/budgets'],
  ['Greta Molin', `/budgets/year-end?year=${LAST_YEAR}`],
  ['Greta Molin', '/suppliers'],
  ['Greta Molin', '/agreements'],
  ['Owen Marsh', '/jobs'],
  ['Tomas Brandt', '/decided?whose=people'],
  ['Harriet Voss', '/set-up/approval'],
  ['Signe Aalto', '/look-back'],
  ['Signe Aalto', '/look-back/authority'],
  ['Harriet Voss', '/waiting'],
  ['Harriet Voss', '/set-up/scheduled'],
  ['Greta Molin', '/set-up/ordering'],
  ['Leonie Farrow', '/orders/runs'],
]

for (const scheme of ['light', 'dark'] as const) {
  test.describe(`accessibility, ${scheme}`, () => {
    const check = async (page: Parameters<typeof alive>[0]) => {
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
        .analyze()
      expect(
        violations
          .filter((v) => v.impact === 'serious' || v.impact === 'critical')
          .map((v) => ({
            id: v.id,
            at: v.nodes.slice(0, 3).map((n) => `${n.html.slice(0, 160)} ${n.failureSummary ?? ''}`),
          })),
      ).toEqual([])
    }
    for (const [who, path] of SCREENS) {
      test(`${path} as ${who}`, async ({ browser }) => {
        const page = await pageAs(browser, who, { colorScheme: scheme })
        await page.goto(path)
        await alive(page)
        await check(page)
        await page.context().close()
      })
    }
    test('a requisition being written', async ({ browser }) => {
      const page = await pageAs(browser, 'Owen Marsh', { colorScheme: scheme })
      await page.goto('/mine')
      await alive(page)
      const link = await page
        .getByRole('link', { name: /^Go on/ })
        .first()
        .getAttribute('href')
      await page.goto(link ?? '')
      await alive(page)
      await page.getByRole('combobox', { name: /^Add a line/ }).fill('quartz')
      await expect(page.getByRole('option').first()).toContainText('Quartz')
      await check(page)
      await page.keyboard.press('Enter')
      await page.getByRole('button', { name: 'delivery, job, notes and more' }).click()
      await page
        .getByRole('button', { name: /^More about line/ })
        .last()
        .click()
      await expect(page.getByLabel('More about it')).toBeFocused()
      await check(page)
      await page.getByRole('button', { name: 'bought before' }).click()
      await expect(page.getByRole('dialog').getByRole('checkbox').first()).toBeVisible()
      await check(page)
      await page.keyboard.press('Escape')
      await page.getByRole('button', { name: 'keep it for another time' }).click()
      await expect(page.getByRole('dialog').getByLabel('Called')).toBeVisible()
      await check(page)
      await page.context().close()
    })

    test('a trail, the keys, an order, a supplier, sign-in and the post office', async ({ browser }) => {
      const page = await pageAs(browser, 'Owen Marsh', { colorScheme: scheme })
      await page.goto('/mine')
      await alive(page)
      await page.getByRole('link', { name: 'Ultraviolet lamps for filter bank 3', exact: true }).click()
      await page.waitForURL(/\/trail\//)
      await check(page)
      await page.keyboard.press('F1')
      await expect(page.getByRole('heading', { name: 'The keys of this place.' })).toBeVisible()
      await check(page)
      await page.context().close()
      const leonie = await pageAs(browser, 'Leonie Farrow', { colorScheme: scheme })
      await leonie.goto('/orders')
      await alive(leonie)
      await leonie.getByRole('link', { name: /^P-/ }).first().click()
      await leonie.waitForURL(/\/orders\/./)
      await check(leonie)
      const { suppliers } = (await (await leonie.request.get('/api/suppliers?words=Cold')).json()) as {
        suppliers: { id: string }[]
      }
      await leonie.goto(`/suppliers/${suppliers[0]?.id ?? ''}`)
      await alive(leonie)
      await check(leonie)
      // An agreement that is nearly drawn, and the form in which it is changed.
      await leonie.goto('/agreements')
      await leonie.getByRole('link', { name: /Filters/ }).click()
      await leonie.waitForURL(/\/agreements\/./)
      await check(leonie)
      await leonie.keyboard.press('Control+Enter')
      await expect(leonie.getByRole('heading', { name: /^What A-.* says$/ })).toBeVisible()
      await check(leonie)
      // A job with parts of which one is on a draft, and a supplier with papers and an account.
      const { jobs } = (await (await leonie.request.get('/api/jobs?words=J-101')).json()) as { jobs: { id: string }[] }
      await leonie.goto(`/jobs/${jobs[0]?.id ?? ''}`)
      await alive(leonie)
      await check(leonie)
      const corrigan = (await (await leonie.request.get('/api/suppliers?words=Corrigan')).json()) as {
        suppliers: { id: string }[]
      }
      await leonie.goto(`/suppliers/${corrigan.suppliers[0]?.id ?? ''}`)
      await alive(leonie)
      await check(leonie)
      await leonie.context().close()
      const stranger = await browser.newContext({ baseURL: URL_OF(), colorScheme: scheme })
      const door = await stranger.newPage()
      await door.goto('/sign-in')
      await check(door)
      await door.goto(POST_OF())
      await check(door)
      await stranger.close()
    })
  })
}

test.describe('narrow, enlarged and long', () => {
  const fits = (page: Parameters<typeof alive>[0]) =>
    page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth + 1)
  for (const [who, path] of SCREENS.filter(([, p]) =>
    ['/raise', '/mine', '/regulars', '/decide', '/account'].includes(p),
  )) {
    test(`${path} as ${who} at 390 by 844, and at 640 by 400 as if enlarged to 200 %`, async ({ browser }) => {
      for (const viewport of [
        { width: 390, height: 844 },
        { width: 640, height: 400 },
      ]) {
        const page = await pageAs(browser, who, { viewport })
        await page.goto(path)
        await alive(page)
        expect(await fits(page)).toBe(true)
        await page.context().close()
      }
    })
  }

  test('forty lines, long words and a long reason do not break Raise', async ({ browser }) => {
    const page = await pageAs(browser, 'Owen Marsh')
    await page.goto('/raise')
    await alive(page)
    await page.locator('#blank-why').click()
    await page.keyboard.insertText(
      `${'Unterwasserbeleuchtungsanlagenwartungsvertrag'.repeat(3)} ${'because it is so '.repeat(60)}`,
    )
    for (let i = 0; i < 40; i += 1) {
      const add = page.getByRole('combobox', { name: /^Add a line/ })
      await add.fill(`${i + 1} ${i % 2 === 0 ? 'Langwortzusammensetzungsungetüm'.repeat(2) : 'bolt'} 1.${i + 10}`)
      await expect(page.getByRole('option').first()).toBeVisible()
      await add.press('Enter')
      await expect(page.getByRole('textbox', { name: `Line ${i + 1}: what` })).toHaveCount(1)
    }
    await expect(page.locator('.sum')).not.toHaveText('EUR 0.00')
    expect(await fits(page)).toBe(true)
    await expect(page.locator('.main-action')).toBeInViewport()
    await page.context().close()
  })

  test('nothing jumps when the verdict changes: the add field stays where it is while typing', async ({ browser }) => {
    const page = await pageAs(browser, 'Owen Marsh')
    await page.goto('/raise')
    await alive(page)
    const add = page.getByRole('combobox', { name: /^Add a line/ })
    const at = (await add.boundingBox())?.y
    await add.pressSequentially('6 quartz', { delay: 30 })
    await expect(page.getByRole('option').first()).toContainText('Quartz')
    expect((await add.boundingBox())?.y).toBe(at)
    await page.context().close()
  })

  test('a press on a tray that is not at hand is released on what was pressed', async ({ browser }) => {
    const page = await pageAs(browser, 'Leonie Farrow')
    await page.goto('/desk')
    await alive(page)
    for (const name of ['pH buffer', 'Disinfectant concentrate']) {
      await page.locator('tr[id^="line-"]', { hasText: name }).first().focus()
      await page.keyboard.press('Enter')
      await expect(page.locator('tr[id^="line-"]', { hasText: name })).toHaveCount(0)
    }
    for (const name of ['Fennmark Laboratory Supply', 'Larkfield Veterinary', 'Fennmark Laboratory Supply']) {
      const tray = page.getByRole('region', { name: `Tray for ${name}` })
      const button = tray.getByRole('button', { name: 'Pass it to a colleague' })
      await button.scrollIntoViewIfNeeded()
      const box = await button.boundingBox()
      await page.mouse.move((box?.x ?? 0) + 20, (box?.y ?? 0) + 8)
      await page.mouse.down()
      // Being at hand is drawn before the press is over.
      await expect(tray).toHaveClass(/outline-ink/)
      expect((await button.boundingBox())?.y).toBe(box?.y)
      await page.mouse.up()
      await expect(page.getByRole('dialog')).toContainText(`Who goes on with the tray for ${name}?`)
      await page.keyboard.press('Escape')
      await expect(page.getByRole('dialog')).toHaveCount(0)
    }
    for (const name of ['Fennmark Laboratory Supply', 'Larkfield Veterinary']) {
      const tray = page.getByRole('region', { name: `Tray for ${name}` })
      await tray.getByRole('button', { name: /^Put this tray away/ }).click()
      await expect(tray).toHaveCount(0)
    }
    await page.context().close()
  })
})
