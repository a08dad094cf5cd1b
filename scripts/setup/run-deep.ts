import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { buildIfChanged } from './build'
import { ROOT, step } from './install.mjs'

/** Hours and days at which the whole is tried: what “npm test” tries at the moment it is run. */
const MOMENTS = [
  '2026-11-26T00:25:00Z',
  '2027-03-31T22:30:00Z',
  '2027-04-01T00:10:00Z',
  '2028-02-29T12:00:00Z',
  '2026-12-31T23:20:00Z',
  '2027-03-28T01:30:00Z',
  '2026-10-25T01:30:00Z',
]

await step('Building the application', () => {
  buildIfChanged(ROOT)
})

/** Everything but the browser at each of these moments, and every property with many more cases than usual. */
let failed = 0
for (const [i, now] of MOMENTS.entries()) {
  process.stdout.write(`\n── at ${now}\n`)
  const projects = i === 0 ? [] : ['--project', 'api']
  const done = spawnSync(process.execPath, [join(ROOT, 'node_modules/vitest/vitest.mjs'), 'run', ...projects], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, FORCE_COLOR: '0', REKKO_NOW: now, REKKO_DEEP: '1' },
  })
  if (done.status !== 0) failed += 1
}
process.stdout.write(`\n${MOMENTS.length - failed} passed, ${failed} failed\n`)
process.exit(failed === 0 ? 0 : 1)
