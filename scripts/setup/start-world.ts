import { cpSync } from 'node:fs'
import { loadDemo } from '../../demo/load-demo'
import { openDatabase } from '../../server/db/client'
import { migrateDatabase } from '../../server/db/migrate'
import { inTransaction } from '../../server/db/transaction'
import { openFirstStart } from '../../server/first-start/open-first-start'
import { buildIfChanged } from './build'
import { createDatabase, freePort, startCluster } from './cluster'
import { chooseMoment } from './moment'
import { ANSWERS_DOMAIN, startPostOffice, startServer, waitFor } from './processes'

const SECRET = 'a-secret-for-tests-that-is-long-enough'

/** One Rekko that a browser may use, with the post office of its own. */
export interface World {
  readonly url: string
  readonly postUrl: string
  /** One more, on an empty database and with the same post office: the address by which it begins. */
  readonly emptyUrl: string
}

/** The address that a start prints, made anew: the newest one holds. */
async function firstAddress(databaseUrl: string, url: string): Promise<string> {
  const { db, pool } = openDatabase(databaseUrl, 1)
  const address = await inTransaction(db, (tx) => openFirstStart(tx, url, new Date()))
  await pool.end()
  return address ?? url
}

/**
 * Builds, and starts `count` worlds that a browser needs, each with its own server, database and post office, from one
 * demo; `past` is how much history that has. Beside each stands one that nobody has set up yet.
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
    const answers = { port: await freePort(), domain: ANSWERS_DOMAIN }
    running.push(await startPostOffice(root, smtpPort, httpPort, `${directory}-post-${n}`, log, answers))
    return { smtpPort, answers, postUrl: `http://127.0.0.1:${httpPort}` }
  }
  const first = await openPost(0)
  await createDatabase(cluster, 'empty')
  await migrateDatabase(cluster.url('rekko_owner', 'empty'), root)
  await createDatabase(cluster, 'demo', 'empty')
  Object.assign(process.env, {
    DATABASE_URL: cluster.url('rekko_app', 'demo'),
    REKKO_SESSION_SECRET: SECRET,
    REKKO_SMTP_URL: `smtp://127.0.0.1:${first.smtpPort}`,
    REKKO_ANSWERS_PORT: String(first.answers.port),
    REKKO_ANSWERS_DOMAIN: first.answers.domain,
    REKKO_ROOT: root,
    REKKO_DEMO: '1',
  })
  const now = chooseMoment()
  await loadDemo(cluster.url('rekko_app', 'demo'), now, past)
  const worlds: World[] = []
  for (let n = 0; n < count; n += 1) {
    if (n > 0) cpSync(`${directory}-post-0`, `${directory}-post-${n}`, { recursive: true })
    const { smtpPort, postUrl, answers } = n === 0 ? first : await openPost(n)
    await createDatabase(cluster, `rekko_${n}`, 'demo')
    await createDatabase(cluster, `empty_${n}`, 'empty')
    const open = async (database: string, isDemo: boolean) => {
      const port = await freePort()
      const settings = {
        databaseUrl: cluster.url('rekko_app', database),
        port,
        smtpPort,
        sessionSecret: SECRET,
        isDemo,
      }
      const server = startServer(root, isDemo ? { ...settings, answers, postOfficeUrl: postUrl, now } : settings, log)
      running.push(server)
      const url = `http://127.0.0.1:${port}`
      await waitFor(`${url}/api/health`, server)
      return url
    }
    const url = await open(`rekko_${n}`, true)
    const emptyUrl = await firstAddress(cluster.url('rekko_app', `empty_${n}`), await open(`empty_${n}`, false))
    worlds.push({ url, postUrl, emptyUrl })
  }
  return {
    worlds,
    stop: async () => {
      for (const r of running.reverse()) await r.stop()
    },
  }
}
