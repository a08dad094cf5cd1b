import { spawn } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { join, relative } from 'node:path'
import { buildIfChanged } from './build'
import { ROOT, step } from './install.mjs'

interface Count {
  passed: number
  failed: number
}

/** What failed, by name: said again at the end, where it is looked for. */
const failures: string[] = []

/** Runs a tool of the project; what it says is shown whole, and its end tells whether it passed. */
function run(name: string, args: readonly string[]): Promise<boolean> {
  process.stdout.write(`\n── ${name}\n`)
  const from = Date.now()
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, FORCE_COLOR: '0', NUXT_TELEMETRY_DISABLED: '1' },
    })
    child.once('exit', (code) => {
      process.stdout.write(
        `── ${name}: ${code === 0 ? 'fine' : 'failed'}, ${((Date.now() - from) / 1000).toFixed(0)} s\n`,
      )
      resolve(code === 0)
    })
  })
}

/** What a test runner counted; a runner that broke off before it could count counts as one that failed. */
function counted(file: string, read: (json: Record<string, unknown>) => Count, ok: boolean): Count {
  if (!existsSync(file)) return { passed: 0, failed: 1 }
  const count = read(JSON.parse(readFileSync(file, 'utf8')) as Record<string, unknown>)
  return ok || count.failed > 0 ? count : { ...count, failed: 1 }
}

const bin = (path: string) => join(ROOT, 'node_modules', path)
const total: Count = { passed: 0, failed: 0 }
const add = (c: Count) => {
  total.passed += c.passed
  total.failed += c.failed
}
const check = async (name: string, args: readonly string[]) => {
  const ok = await run(name, args)
  if (!ok) failures.push(name)
  add(ok ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 })
}

/** The tests that failed by vitest's report. */
function failedUnits(report: Record<string, unknown>): string[] {
  const files = report.testResults as {
    name: string
    message: string
    assertionResults: { status: string; fullName: string }[]
  }[]
  return files.flatMap((f) => {
    const tests = f.assertionResults.filter((t) => t.status === 'failed').map((t) => t.fullName)
    const file = relative(ROOT, f.name)
    return tests.length > 0 ? tests.map((t) => `${file}: ${t}`) : f.message === '' ? [] : [`${file}: ${f.message}`]
  })
}

interface BrowserSuite {
  readonly file: string
  readonly specs: readonly { readonly ok: boolean; readonly title: string }[]
  readonly suites?: readonly BrowserSuite[]
}
/** The tests that failed by Playwright's report. */
const failedSpecs = (suites: readonly BrowserSuite[]): string[] =>
  suites.flatMap((s) => [
    ...s.specs.filter((t) => !t.ok).map((t) => `${s.file}: ${t.title}`),
    ...failedSpecs(s.suites ?? []),
  ])

const [vitest, playwright] = [join(ROOT, '.rekko/vitest.json'), join(ROOT, '.rekko/playwright.json')]
rmSync(vitest, { force: true })
rmSync(playwright, { force: true })
try {
  await step('Building the application', () => {
    buildIfChanged(ROOT)
  })
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.stdout.write('0 passed, 1 failed\n')
  process.exit(1)
}
// “npm test -- approval” runs what is named by an area's word, and leaves out what looks at the whole.
const words = process.argv.slice(2)
if (words.length === 0) {
  await check('form', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', '.'])
  await check('lint', [bin('eslint/bin/eslint.js'), '.', '--max-warnings', '0'])
  await check('types', [bin('vue-tsc/bin/vue-tsc.js'), '-b', '--noEmit'])
  await check('types of the core alone', [bin('typescript/bin/tsc'), '-p', 'core'])
  await check('dead code', [bin('knip/bin/knip.js')])
}
const units = await run('core, house, API, access and faults', [
  bin('vitest/vitest.mjs'),
  'run',
  ...words,
  ...(words.length > 0 ? ['--passWithNoTests'] : []),
])
add(
  counted(
    vitest,
    (j) => {
      failures.push(...failedUnits(j))
      return {
        passed: Number(j.numPassedTests),
        failed: Number(j.numFailedTests) + (Number(j.numFailedTests) === 0 ? Number(j.numFailedTestSuites) : 0),
      }
    },
    units,
  ),
)
const browser = await run('browser', [
  bin('@playwright/test/cli.js'),
  'test',
  ...words,
  ...(words.length > 0 ? ['--pass-with-no-tests'] : []),
])
add(
  counted(
    playwright,
    (j) => {
      failures.push(...failedSpecs(j.suites as readonly BrowserSuite[]))
      const s = j.stats as Record<string, number>
      return { passed: s.expected ?? 0, failed: (s.unexpected ?? 0) + (s.flaky ?? 0) }
    },
    browser,
  ),
)
process.stdout.write(failures.map((f) => `\nfailed: ${f.split('\n')[0] ?? ''}`).join(''))
process.stdout.write(`\n${total.passed} passed, ${total.failed} failed\n`)
process.exit(total.failed === 0 && total.passed > 0 ? 0 : 1)
