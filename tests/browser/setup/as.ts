import {
  test as base,
  expect,
  type Browser,
  type BrowserContextOptions,
  type Locator,
  type Page,
} from '@playwright/test'
import type { World } from '../../../scripts/setup/start-world'

export { expect }
/** The world of this worker. */
function world(): World {
  const worlds = JSON.parse(process.env.REKKO_TEST_WORLDS ?? '[]') as World[]
  const mine = worlds[Number(process.env.TEST_PARALLEL_INDEX ?? '0')]
  if (mine === undefined) throw new Error('this worker has no world')
  return mine
}
/** Where a Rekko that nobody has set up yet begins. */
export const EMPTY_OF = () => world().emptyUrl
export const URL_OF = () => world().url
export const POST_OF = () => world().postUrl

/** A page of its own for a demo person, signed in with one press; fails the test when the page reports a fault. */
export async function pageAs(browser: Browser, name: string, options: BrowserContextOptions = {}): Promise<Page> {
  const context = await browser.newContext({ baseURL: URL_OF(), ...options })
  const { people } = (await (await context.request.get('/api/demo-people')).json()) as {
    people: { id: string; name: string }[]
  }
  const person = people.find((p) => p.name === name)
  expect(person, `${name} is in the demo`).toBeDefined()
  expect((await context.request.post('/api/session/demo', { data: { personId: person?.id } })).ok()).toBe(true)
  return watched(await context.newPage())
}

/** A page whose faults fail the test. */
export function watched(page: Page): Page {
  page.on('pageerror', (error) => {
    faults.push(error.message)
  })
  page.on('console', (m) => {
    if (m.type() === 'error' && !/status of 4\d\d|ERR_INTERNET_DISCONNECTED/.test(m.text())) faults.push(m.text())
  })
  return page
}
const faults: string[] = []

export const test = base.extend<{ noFaults: undefined }>({
  noFaults: [
    async ({ browserName: _ }, use) => {
      faults.length = 0
      await use(undefined)
      expect(faults).toEqual([])
    },
    { auto: true },
  ],
})

/** Waits until this, or something in it, has the focus. */
export async function focusIn(where: Locator): Promise<void> {
  await expect
    .poll(() => where.evaluate((e) => e.contains(document.activeElement) || e === document.activeElement))
    .toBe(true)
}

/** Waits until the page is alive: its scripts have taken over from what the server drew. */
export async function alive(page: Page): Promise<void> {
  await page.locator('html[data-alive]').waitFor({ state: 'attached' })
}
