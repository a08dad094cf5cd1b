import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { build } from 'vite'
import { BLANK_LINE, type Draft } from '#core/requisition/draft'
import type { DraftFactsWire } from '#shared/contract/draft-facts'
import { DEMO_PASSWORD } from '../../demo/load-demo'
import { ROOT } from '../setup/install.mjs'

const LINES = 500
type Result = [what: string, figure: string, aim: string]

/** The core and the reading of facts as one script for a page of its own. */
async function bundleCore(): Promise<string> {
  const entry = join(ROOT, '.rekko/bench-verdict.ts')
  writeFileSync(
    entry,
    `export { computeDraft } from '${join(ROOT, 'core/requisition/compute')}'\nexport { readFacts } from ` +
      `'${join(ROOT, 'shared/contract/draft-facts')}'\n`,
  )
  const result = await build({
    configFile: false,
    logLevel: 'silent',
    root: ROOT,
    resolve: { alias: { '#core': join(ROOT, 'core'), '#shared': join(ROOT, 'shared') } },
    build: { write: false, lib: { entry, formats: ['iife'], name: 'core' } },
  })
  const [output] = Array.isArray(result) ? result : 'output' in result ? [result] : []
  const chunk = output?.output.find((o) => o.type === 'chunk')
  if (chunk === undefined) throw new Error('the core was not bundled')
  return chunk.code
}

/**
 * Working a draft of 500 lines out again after one line changed, in the browser, beside a loop that is known to fill
 * about a frame.
 */
async function benchVerdict(draft: Draft, facts: DraftFactsWire): Promise<Result> {
  const code = await bundleCore()
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const page = await browser.newPage()
  // The script runner names functions by a helper of its own, which a page does not have.
  await page.addScriptTag({ content: `globalThis.__name = (f) => f; ${code}; globalThis.core = core` })
  const { verdict, loop } = await page.evaluate(
    ([d, wire]) => {
      const { computeDraft, readFacts } = (
        globalThis as unknown as {
          core: {
            computeDraft: (d: unknown, f: unknown, memo: Map<string, unknown>) => unknown
            readFacts: (w: unknown) => unknown
          }
        }
      ).core
      const known = readFacts(wire)
      const memo = new Map<string, unknown>()
      let sink = 0
      const counting = () => {
        let x = 88172645
        for (let i = 0; i < 12_000_000; i += 1) {
          x ^= x << 13
          x ^= x >>> 17
          x ^= x << 5
        }
        sink += x
      }
      const time = (work: () => void) => {
        const from = performance.now()
        work()
        return performance.now() - from
      }
      const times: { verdict: number[]; loop: number[] } = { verdict: [], loop: [] }
      for (let i = 0; i < 70; i += 1) {
        const next = {
          ...d,
          lines: d.lines.map((l: { quantity: string }, at: number) =>
            at === (i * 7) % d.lines.length ? { ...l, quantity: String((i % 9) + 1) } : l,
          ),
        }
        times.verdict.push(
          time(() => {
            computeDraft(next, known, memo)
          }),
        )
        times.loop.push(time(counting))
      }
      const middle = (list: number[]) => list.slice(10).sort((a, b) => a - b)[30] ?? 0
      return { verdict: middle(times.verdict), loop: middle(times.loop) + (sink === 0 ? 1 : 0) }
    },
    [draft, facts] as const,
  )
  await browser.close()
  return [
    `verdict of ${LINES} lines after one changed, in the browser: ${verdict.toFixed(1)} ms, a loop of 12 ` +
      `million steps beside it ${loop.toFixed(1)} ms (medians)`,
    `${(verdict / loop).toFixed(2)} of the loop`,
    'under a frame, 16 ms',
  ]
}

/** Typing into a grid of 500 lines, with every task of the page over 50 ms counted. */
async function benchGrid(url: string): Promise<Result> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  })
  const context = await browser.newContext({ baseURL: url, viewport: { width: 1280, height: 800 } })
  await context.request.post('/api/session', {
    data: { email: 'owen.marsh@hallamere.example', password: DEMO_PASSWORD },
  })
  const page = await context.newPage()
  await page.goto('/raise', { waitUntil: 'networkidle' })
  const rows = Array.from({ length: LINES - 1 }, (_, i) => `;Thing number ${i + 2};${(i % 7) + 1};0.50`)
  await page.getByLabel('A file of lines').setInputFiles({
    name: 'many.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['Part;What;Qty;Price', 'CP-QS-25;;2;', ...rows].join('\n')),
  })
  await page
    .getByRole('button', { name: /^Take / })
    .first()
    .click()
  await page.getByText(/draft kept/).waitFor()
  await page.waitForTimeout(2000)
  await page.evaluate(() => {
    const tasks: number[] = []
    Object.assign(globalThis, { longTasks: tasks })
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) tasks.push(e.duration)
    }).observe({ entryTypes: ['longtask'] })
  })
  await page.evaluate(() => {
    scrollTo(0, 0)
  })
  // Found by their plain labels: looking for them by role would itself keep the page busy.
  const what = page.locator('input[aria-label="Line 7: what"]')
  await what.focus()
  await page.keyboard.type(' of the blue kind, with a longer text', { delay: 60 })
  for (const line of [3, 8, 12]) {
    await page.locator(`input[aria-label="Line ${line}: how many"]`).focus()
    await page.keyboard.type('5', { delay: 60 })
    await page.keyboard.press('Tab')
  }
  await page.waitForTimeout(1500)
  const tasks = await page.evaluate(() => (globalThis as unknown as { longTasks: number[] }).longTasks)
  await browser.close()
  return [
    `typing 37 letters and three quantities into ${LINES} lines: tasks over 50 ms`,
    tasks.length === 0 ? 'none' : `${tasks.length}, the longest ${Math.max(...tasks).toFixed(0)} ms`,
    'none',
  ]
}

export async function benchTyping(url: string, facts: DraftFactsWire, draft: Draft): Promise<Result[]> {
  const [payer] = facts.budgetLines
  const many: Draft = {
    ...draft,
    lines: Array.from({ length: LINES }, (_, i) => ({
      ...BLANK_LINE,
      id: `line-${i}`,
      description: `Thing number ${i}`,
      quantity: String((i % 7) + 1),
      unitPrice: '12.35',
      codings: [{ budgetLineId: payer?.id ?? '', value: null }],
    })),
  }
  return [await benchVerdict(many, facts), await benchGrid(url)]
}
