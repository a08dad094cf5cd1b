import { cpSync } from 'node:fs'
import { loadDemo } from '../../demo/load-demo'
import { migrateDatabase } from '../../server/db/migrate'
import { buildIfChanged } from './build'
import { createDatabase, freePort, startCluster } from './cluster'
import { chooseMoment } from './moment'
import { startPostOffice, startServer, waitFor } from './processes'

const SECRET = 'a-secret-for-tests-that-is-long-enough'

/** One Rekko that a browser may use, with the post office of its own. */
export interface World {
  readonly url: string
  readonly postUrl: string
}

/**
 * Builds, and starts `count` worlds that a browser needs, each with its own server, database and post office, from one
 * demo; `past` is how much history that has.
 */
export async function startBrowserWorlds(
  root: string,
  directory: string,
  log: string,
  { past, count }: { readonly past: number; readonly count: number },
): Promise<{ worlds: World[]; stop: () => Promise<void> }> {
  buildIfChanged(root)
  const cluster = await startCluster(directory, { hasty: true })
  const running: { stop: () => Promise<void> }[] = [cluster]
  const openPost = async (n: number) => {
    const [smtpPort, httpPort] = [await freePort(), await freePort()]
    running.push(await startPostOffice(root, smtpPort, httpPort, `${directory}-post-${n}`, log))
    return { smtpPort, postUrl: `http://127.0.0.1:${httpPort}` }
  }
  const first = await openPost(0)
  await createDatabase(cluster, 'demo')
  await migrateDatabase(cluster.url('rekko_owner', 'demo'), root)
  Object.assign(process.env, {
    DATABASE_URL: cluster.url('rekko_app', 'demo'),
    REKKO_SESSION_SECRET: SECRET,
    REKKO_SMTP_URL: `smtp://127.0.0.1:${first.smtpPort}`,
    REKKO_ROOT: root,
    REKKO_DEMO: '1',
  })
  const now = chooseMoment()
  await loadDemo(cluster.url('rekko_app', 'demo'), now, past)
  const worlds: World[] = []
  for (let n = 0; n < count; n += 1) {
    if (n > 0) cpSync(`${directory}-post-0`, `${directory}-post-${n}`, { recursive: true })
    const { smtpPort, postUrl } = n === 0 ? first : await openPost(n)
    await createDatabase(cluster, `rekko_${n}`, 'demo')
    const port = await freePort()
    const databaseUrl = cluster.url('rekko_app', `rekko_${n}`)
    const server = startServer(
      root,
      { databaseUrl, port, smtpPort, sessionSecret: SECRET, isDemo: true, postOfficeUrl: postUrl, now },
      log,
    )
    running.push(server)
    const url = `http://127.0.0.1:${port}`
    await waitFor(`${url}/api/health`, server)
    worlds.push({ url, postUrl })
  }
  return {
    worlds,
    stop: async () => {
      for (const r of running.reverse()) await r.stop()
    },
  }
}
