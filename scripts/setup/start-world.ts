import { loadDemo } from '../../demo/load-demo'
import { migrateDatabase } from '../../server/db/migrate'
import { buildIfChanged } from './build'
import { chooseMoment } from './moment'
import { createDatabase, freePort, startCluster } from './cluster'
import { startPostOffice, startServer, waitFor } from './processes'

const SECRET = 'a-secret-for-tests-that-is-long-enough'

/** Builds, starts and fills everything that a browser needs; `past` is how much history the demo has. */
export async function startBrowserWorld(
  root: string,
  directory: string,
  log: string,
  past = 16,
): Promise<{ url: string; postUrl: string; stop: () => Promise<void> }> {
  buildIfChanged(root)
  const [port, smtpPort, postPort] = [await freePort(), await freePort(), await freePort()]
  const cluster = await startCluster(directory, { hasty: true })
  const post = await startPostOffice(root, smtpPort, postPort, `${directory}-post`, log)
  await createDatabase(cluster, 'rekko')
  await migrateDatabase(cluster.url('rekko_owner', 'rekko'), root)
  const databaseUrl = cluster.url('rekko_app', 'rekko')
  Object.assign(process.env, {
    DATABASE_URL: databaseUrl,
    REKKO_SESSION_SECRET: SECRET,
    REKKO_SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
    REKKO_ROOT: root,
    REKKO_DEMO: '1',
  })
  const now = chooseMoment()
  await loadDemo(databaseUrl, now, past)
  const postUrl = `http://127.0.0.1:${postPort}`
  const server = startServer(
    root,
    { databaseUrl, port, smtpPort, sessionSecret: SECRET, isDemo: true, postOfficeUrl: postUrl, now },
    log,
  )
  const url = `http://127.0.0.1:${port}`
  await waitFor(`${url}/api/health`, server)
  return {
    url,
    postUrl,
    stop: async () => {
      await server.stop()
      await post.stop()
      await cluster.stop()
    },
  }
}
