import { randomBytes } from 'node:crypto'
import { readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type { FullConfig } from '@playwright/test'
import { register } from 'tsx/esm/api'

/** A whole Rekko with a small demo for each worker: its own database, post office and server, ended at the end. */
export default async function world(config: FullConfig): Promise<() => Promise<void>> {
  register()
  const root = process.cwd()
  const { startBrowserWorlds } = await import('../../../scripts/setup/start-world')
  const name = `rekko-browser-${process.pid}-${randomBytes(4).toString('hex')}`
  const { worlds, stop } = await startBrowserWorlds(
    root,
    join('/var/tmp', name),
    join(root, '.rekko/browser-server.log'),
    { past: 16, count: config.workers },
  )
  process.env.REKKO_TEST_WORLDS = JSON.stringify(worlds)
  return async () => {
    await stop()
    for (const left of readdirSync('/var/tmp').filter((n) => n.startsWith(name)))
      rmSync(join('/var/tmp', left), { recursive: true, force: true })
  }
}
