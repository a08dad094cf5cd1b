import { randomBytes } from 'node:crypto'
import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { register } from 'tsx/esm/api'

/** A whole Rekko with a small demo for the browser: its own cluster, post office and server, ended at the end. */
export default async function world(): Promise<() => Promise<void>> {
  register()
  const root = process.cwd()
  const { startBrowserWorld } = await import('../../../scripts/setup/start-world')
  const directory = `/var/tmp/rekko-browser-${process.pid}-${randomBytes(4).toString('hex')}`
  const running = await startBrowserWorld(root, directory, join(root, '.rekko/browser-server.log'))
  process.env.REKKO_TEST_URL = running.url
  process.env.REKKO_TEST_POST = running.postUrl
  return async () => {
    await running.stop()
    rmSync(directory, { recursive: true, force: true })
    rmSync(`${directory}-post`, { recursive: true, force: true })
  }
}
