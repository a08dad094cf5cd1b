import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { buildIfChanged } from './build'
import { ROOT, step } from './install.mjs'

await step('Building the application', () => {
  buildIfChanged(ROOT)
})

/** Everything that goes wrong from outside, and a hundred kills at work instead of the dozen of `npm test`. */
const done = spawnSync(
  process.execPath,
  [join(ROOT, 'node_modules/vitest/vitest.mjs'), 'run', '--project', 'api', 'tests/faults'],
  {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, FORCE_COLOR: '0', REKKO_KILLS: process.argv[2] ?? '100' },
  },
)
process.exit(done.status ?? 1)
