import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { loadDemo } from '../../demo/load-demo'
import { clock } from '../../server/clock'
import { migrateDatabase } from '../../server/db/migrate'
import { createDatabase, databaseExists, freePort, startCluster } from './cluster'
import { ROOT, step } from './install.mjs'
import { ANSWERS_DOMAIN, ANSWERS_RELAY, startPostOffice } from './processes'

/** For development: the demo's world in a cluster of its own, and the application rebuilt at every change. */
const SECRET = 'a-secret-for-development-that-is-long-enough'
const DATABASE = 'rekko'
const place = createHash('sha256')
  .update(`dev ${ROOT} ${process.getuid?.() ?? 0}`)
  .digest('hex')
  .slice(0, 12)
const [smtpPort, postPort] = [await freePort(), await freePort()]
const answers = { port: await freePort(), domain: ANSWERS_DOMAIN }
const cluster = await step('Starting the database', () => startCluster(`/var/tmp/rekko-dev-${place}`, { hasty: true }))
const post = await startPostOffice(
  ROOT,
  smtpPort,
  postPort,
  join(ROOT, '.rekko/dev-post'),
  join(ROOT, '.rekko/post-office.log'),
  answers,
)
const fresh = !(await databaseExists(cluster, DATABASE))
if (fresh) await createDatabase(cluster, DATABASE)
await migrateDatabase(cluster.url('rekko_owner', DATABASE), ROOT)
const env = {
  DATABASE_URL: cluster.url('rekko_app', DATABASE),
  REKKO_SESSION_SECRET: SECRET,
  REKKO_SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
  REKKO_ANSWERS_PORT: String(answers.port),
  REKKO_ANSWERS_DOMAIN: answers.domain,
  REKKO_ANSWERS_RELAY: ANSWERS_RELAY,
  REKKO_ROOT: ROOT,
  REKKO_DEMO: '1',
  REKKO_POST_OFFICE_URL: `http://127.0.0.1:${postPort}`,
  NUXT_TELEMETRY_DISABLED: '1',
}
Object.assign(process.env, env)
if (fresh) await step('Loading Hallamere Oceanarium', () => loadDemo(cluster.url('rekko_app', DATABASE), clock()))
const dev = spawn(process.execPath, [join(ROOT, 'node_modules/nuxt/bin/nuxt.mjs'), 'dev', '--host', '127.0.0.1'], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, ...env },
})
const end = (): void => {
  dev.kill('SIGTERM')
}
process.on('SIGINT', end)
process.on('SIGTERM', end)
dev.once('exit', () => {
  void Promise.all([post.stop(), cluster.stop()]).then(() => process.exit(0))
})
