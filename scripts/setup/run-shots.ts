import { randomBytes } from 'node:crypto'
import { mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import { startBrowserWorlds } from './start-world'
import { ROOT, step } from './install.mjs'

/** One current picture of each main view, made from the demo's data. */
interface Shot {
  name: string
  who: string
  path: string
  dark?: boolean
  phone?: boolean
  act?: (page: Page) => Promise<void>
}

const openFirst = (name: RegExp) => async (page: Page) => {
  await page.getByRole('link', { name }).first().click()
  await page.waitForTimeout(900)
}
const SHOTS: Shot[] = [
  { name: 'raise', who: 'Owen Marsh', path: '/raise', act: writeLamps },
  { name: 'raise-phone', who: 'Owen Marsh', path: '/mine?view=drafts', phone: true, act: openFirst(/^Go on/) },
  { name: 'catalogue', who: 'Owen Marsh', path: '/catalogue', act: findSleeves },
  { name: 'mine', who: 'Owen Marsh', path: '/mine' },
  { name: 'decide', who: 'Ines Adeyemi', path: '/decide' },
  { name: 'decided', who: 'Tomas Brandt', path: '/decided?whose=people' },
  { name: 'decide-phone', who: 'Ines Adeyemi', path: '/decide', phone: true },
  { name: 'approval', who: 'Harriet Voss', path: '/set-up/approval', act: waitForFindings },
  { name: 'waiting', who: 'Greta Molin', path: '/waiting' },
  { name: 'lists', who: 'Harriet Voss', path: '/set-up/lists/people' },
  { name: 'desk', who: 'Leonie Farrow', path: '/desk', act: fillTray },
  { name: 'proposals', who: 'Leonie Farrow', path: '/desk/proposals' },
  { name: 'orders', who: 'Leonie Farrow', path: '/orders' },
  { name: 'order', who: 'Leonie Farrow', path: '/orders', act: openFirst(/^P-/) },
  { name: 'trail', who: 'Owen Marsh', path: '/mine?words=kelp', act: openFirst(/Sea salt for the kelp tank/) },
  { name: 'budgets', who: 'Tomas Brandt', path: '/budgets' },
  { name: 'supplier', who: 'Greta Molin', path: '/suppliers?words=Corrigan', act: openFirst(/^Corrigan Pumps/) },
  { name: 'look-back', who: 'Signe Aalto', path: '/look-back', dark: true },
  { name: 'agreement', who: 'Leonie Farrow', path: '/agreements', act: openFirst(/^Sea salt/) },
]

async function writeLamps(page: Page): Promise<void> {
  for (const [typed, first] of [
    ['6 cp-uv-80a', 'Ultraviolet'],
    ['6 quartz sleeve', 'Quartz sleeve, 25'],
    ['Take away old lamps, mercury waste 140', 'line of your own'],
  ] as const) {
    await page.keyboard.type(typed)
    await page.getByRole('option').filter({ hasText: first }).first().waitFor()
    await page.waitForTimeout(400)
    await page.keyboard.press('Enter')
  }
  await page.locator('#blank-need-by').click()
  await page.getByRole('button', { name: '10 working days on' }).click()
  await page.locator('#blank-why').click()
  await page.keyboard.type(
    'the ultraviolet lamps in filter bank 3 are below half strength and the seal pool reopens on the 12th',
  )
  await page.getByRole('combobox', { name: /^Add a line/ }).focus()
  await page.waitForTimeout(1200)
}

async function waitForFindings(page: Page): Promise<void> {
  await page.getByRole('status').filter({ hasText: 'found' }).waitFor()
}

async function findSleeves(page: Page): Promise<void> {
  await page.getByRole('searchbox', { name: 'Find in the catalogue' }).fill('quartz sl')
  await page.getByRole('link', { name: 'Quartz sleeve, 32 mm, closed end' }).waitFor()
  await page.waitForTimeout(600)
  await page.keyboard.press('ArrowDown')
  await page.keyboard.type('6')
  await page.waitForTimeout(400)
}

async function fillTray(page: Page): Promise<void> {
  await page
    .getByRole('row', { name: /Shaft seal kit/ })
    .nth(0)
    .click()
  await page
    .getByRole('row', { name: /Shaft seal kit/ })
    .nth(1)
    .click()
  await page.keyboard.press('Enter')
  await page.getByRole('region', { name: 'Tray for Corrigan Pumps' }).waitFor()
  await page.getByRole('row', { name: /pH buffer/ }).click()
  await page.waitForTimeout(400)
}

const directory = `/var/tmp/rekko-shots-${process.pid}-${randomBytes(4).toString('hex')}`
const target = join(ROOT, 'docs/screenshots')
mkdirSync(target, { recursive: true })
const { worlds, stop } = await step('Starting the demo', () =>
  startBrowserWorlds(ROOT, directory, join(ROOT, '.rekko/shots.log'), { past: 62, count: 1 }),
)
const [world = { url: '' }] = worlds
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
try {
  for (const shot of SHOTS) {
    const context = await browser.newContext({
      baseURL: world.url,
      viewport: shot.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
      colorScheme: shot.dark ? 'dark' : 'light',
    })
    const { people } = (await (await context.request.get('/api/demo-people')).json()) as {
      people: { id: string; name: string }[]
    }
    await context.request.post('/api/session/demo', {
      data: { personId: people.find((p) => p.name === shot.who)?.id },
    })
    const page = await context.newPage()
    await page.goto(shot.path)
    await page.waitForLoadState('load')
    await page.waitForTimeout(800)
    await shot.act?.(page)
    await page.screenshot({ path: join(target, `${shot.name}.png`) })
    await context.close()
    process.stdout.write(`  ${shot.name}.png\n`)
  }
} finally {
  await browser.close()
  await stop()
  rmSync(directory, { recursive: true, force: true })
  rmSync(`${directory}-post-0`, { recursive: true, force: true })
}
