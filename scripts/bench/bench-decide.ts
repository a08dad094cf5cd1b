import { randomUUID } from 'node:crypto'
import { chromium } from '@playwright/test'
import pg from 'pg'
import type { Draft } from '#core/requisition/draft'
import { DEMO_PASSWORD } from '../../demo/load-demo'
import { personId } from '../../demo/world/people'
import type { Db } from '../../server/db/client'
import { inTransaction } from '../../server/db/transaction'
import { findActor } from '../../server/people/actor-reads'
import { createDraft } from '../../server/requisition/save-draft'
import type { Cluster } from '../setup/cluster'
import { sendRequisition } from '../../server/requisition/send-requisition'

const [FEW, MANY] = [20, 2000] as const
/** So much later every answer comes, and so long somebody looks at each before they decide. */
const [LATER_MS, READ_MS] = [200, 400] as const
type Result = [what: string, figure: string, aim: string]
const DECIDER = 'ines.adeyemi@hallamere.example'

/** Requests of Owen Marsh above his own limit: they wait for his manager. */
async function raise(db: Db, count: number, draft: () => Draft): Promise<void> {
  for (let i = 0; i < count; i += 1) {
    const id = randomUUID()
    const now = new Date()
    await inTransaction(db, async (tx) => {
      const actor = await findActor(tx, personId('Owen Marsh'), now)
      if (actor === null) throw new Error('nobody raises')
      await createDraft({ tx, now, actor }, id, draft())
      await sendRequisition({ tx, now, actor }, id, 1)
    })
  }
}

async function readQueue(url: string, cookie: string): Promise<{ median: number; kilobytes: number }> {
  const times: number[] = []
  let bytes = 0
  for (let i = 0; i < 40; i += 1) {
    const from = performance.now()
    const reply = await fetch(`${url}/api/waiting`, { headers: { cookie } })
    bytes = (await reply.arrayBuffer()).byteLength
    times.push(performance.now() - from)
  }
  return { median: times.slice(10).sort((a, b) => a - b)[15] ?? 0, kilobytes: bytes / 1000 }
}

/** Ten decisions in a row, with every answer held back: how long there was nothing new to read after each. */
async function decideTen(url: string): Promise<number[]> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  })
  const context = await browser.newContext({ baseURL: url, viewport: { width: 1280, height: 800 } })
  await context.request.post('/api/session', { data: { email: DECIDER, password: DEMO_PASSWORD } })
  const page = await context.newPage()
  await page.goto('/decide', { waitUntil: 'networkidle' })
  await page.route('**/api/**', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, LATER_MS))
    await route.continue()
  })
  const shown = () => page.locator('article a[href^="/trail/"]').first().getAttribute('href')
  const gaps: number[] = []
  await page.waitForTimeout(1500)
  for (let i = 0; i < 10; i += 1) {
    const before = await shown()
    await page.locator('#page').focus()
    await page.waitForTimeout(READ_MS)
    const from = performance.now()
    await page.keyboard.press('Control+Enter')
    await page.waitForFunction((old) => {
      const link = document.querySelector('article a[href^="/trail/"]')
      return link !== null && link.getAttribute('href') !== old
    }, before)
    gaps.push(performance.now() - from)
  }
  await browser.close()
  return gaps
}

/** Decide with a long queue, and ten decisions in a row over a slow network. */
export async function benchDecide(
  db: Db,
  cluster: Cluster,
  url: string,
  signIn: (email: string) => Promise<string>,
  draft: () => Draft,
): Promise<Result[]> {
  // No budget stands in the way of so many.
  const owner = new pg.Client({ connectionString: cluster.url('postgres', 'rekko') })
  await owner.connect()
  await owner.query('update budget_balance set budgeted = budgeted + 100000000')
  await owner.end()
  const cookie = await signIn(DECIDER)
  await raise(db, FEW, draft)
  const few = await readQueue(url, cookie)
  await raise(db, MANY - FEW, draft)
  const many = await readQueue(url, cookie)
  const gaps = await decideTen(url)
  return [
    [
      `what waits for somebody, ${MANY.toLocaleString('en')} beside ${FEW} requests: ${many.median.toFixed(1)} and ` +
        `${few.median.toFixed(1)} ms, ${many.kilobytes.toFixed(0)} and ${few.kilobytes.toFixed(0)} kB (medians)`,
      `${(many.median / few.median).toFixed(1)} times`,
      'below 100 times',
    ],
    [
      `ten decisions in a row, each ${READ_MS} ms after the one before, with ${LATER_MS} ms added to every answer: ` +
        'longest time without the next one to read',
      `${Math.max(...gaps).toFixed(0)} ms`,
      `below ${LATER_MS} ms`,
    ],
  ]
}
