import { createHash, randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { loadDemo, DEMO_PASSWORD } from '../../demo/load-demo'
import { readStartOfClock } from '../../server/clock'
import { migrateDatabase } from '../../server/db/migrate'
import { buildIfChanged } from './build'
import { createDatabase, databaseExists, dropDatabase, freePort, isFree, startCluster, type Cluster } from './cluster'
import { ROOT, step } from './install.mjs'
import { ANSWERS_DOMAIN, startPostOffice, startServer, waitFor, type Answers, type Running } from './processes'

const DATABASE = 'rekko'
const STATE = join(ROOT, '.rekko/demo.json')
interface State {
  secret: string
  pid: number
  url: string
}

/** Where the demo's clock starts, if not at the machine's moment. */
const startOfClock = readStartOfClock({ ...process.env, REKKO_DEMO: '1' })
const reset = process.argv.includes('--reset')
const running: { stop: () => Promise<void> }[] = []
let ending = false

/** Ends everything that was started, in the opposite order, and leaves nothing behind. */
async function end(code: number): Promise<void> {
  if (ending) return
  ending = true
  for (const r of running.reverse()) await r.stop().catch(() => undefined)
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
  process.on(signal, () => {
    process.stdout.write('\nEnding … ')
    void end(0)
  })

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('demo')
  } catch {
    return false
  }
}

async function portOr(wanted: number): Promise<number> {
  return (await isFree(wanted)) ? wanted : freePort()
}

async function prepareDatabase(cluster: Cluster, smtpPort: number, secret: string, answers: Answers): Promise<void> {
  if (reset) await step('Throwing the old demo away', () => dropDatabase(cluster, DATABASE))
  const fresh = !(await databaseExists(cluster, DATABASE))
  if (fresh) await createDatabase(cluster, DATABASE)
  await step('Bringing the database forward', () => migrateDatabase(cluster.url('rekko_owner', DATABASE), ROOT))
  if (!fresh) return
  Object.assign(process.env, {
    DATABASE_URL: cluster.url('rekko_app', DATABASE),
    REKKO_SESSION_SECRET: secret,
    REKKO_SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
    REKKO_ANSWERS_PORT: String(answers.port),
    REKKO_ANSWERS_DOMAIN: answers.domain,
    REKKO_ROOT: ROOT,
    REKKO_DEMO: '1',
  })
  try {
    const made = await step('Loading Hallamere Oceanarium', () =>
      loadDemo(cluster.url('rekko_app', DATABASE), startOfClock ?? new Date()),
    )
    process.stdout.write(`  ${made.requisitions} requisitions, ${made.orders} orders, ${made.mails} mails\n`)
  } catch (error) {
    await dropDatabase(cluster, DATABASE)
    throw error
  }
}

async function main(): Promise<void> {
  const before = existsSync(STATE) ? (JSON.parse(readFileSync(STATE, 'utf8')) as State) : null
  if (before !== null && before.pid !== process.pid && isAlive(before.pid)) {
    process.stdout.write(`The demo of this checkout is running already: ${before.url}\n`)
    process.exit(0)
  }
  const secret = before?.secret ?? randomBytes(32).toString('base64url')
  const place = createHash('sha256')
    .update(`${ROOT} ${process.getuid?.() ?? 0}`)
    .digest('hex')
    .slice(0, 12)
  const directory = `/var/tmp/rekko-demo-${place}`
  const post = join(ROOT, '.rekko/post')
  if (reset) rmSync(post, { recursive: true, force: true })
  mkdirSync(post, { recursive: true })
  const [smtpPort, postPort] = [await freePort(), await portOr(8025)]
  const answers = { port: await freePort(), domain: ANSWERS_DOMAIN }
  const cluster = await step('Starting the database', () => startCluster(directory, { hasty: false }))
  running.push(cluster)
  const postOffice: Running = await step('Opening the post office', () =>
    startPostOffice(ROOT, smtpPort, postPort, post, join(ROOT, '.rekko/post-office.log'), answers),
  )
  running.push(postOffice)
  await prepareDatabase(cluster, smtpPort, secret, answers)
  await step('Building the application', () => Promise.resolve(buildIfChanged(ROOT)))
  const port = await portOr(Number(process.env.PORT ?? '') || 3000)
  const url = `http://127.0.0.1:${port}`
  const server = await step('Starting Rekko', async () => {
    const started = startServer(
      ROOT,
      {
        databaseUrl: cluster.url('rekko_app', DATABASE),
        port,
        smtpPort,
        sessionSecret: secret,
        isDemo: true,
        now: startOfClock ?? undefined,
        answers,
        postOfficeUrl: `http://127.0.0.1:${postPort}`,
      },
      join(ROOT, '.rekko/server.log'),
    )
    running.push(started)
    await waitFor(`${url}/api/health`, started)
    return started
  })
  server.child.once('exit', () => {
    if (!ending) {
      process.stderr.write('Rekko ended by itself; .rekko/server.log says why.\n')
      void end(1)
    }
  })
  writeFileSync(STATE, JSON.stringify({ secret, pid: process.pid, url } satisfies State), { mode: 0o600 })
  await showPeople(url, postPort)
}

async function showPeople(url: string, postPort: number): Promise<void> {
  const { people } = (await fetch(`${url}/api/demo-people`).then((r) => r.json())) as {
    people: { name: string; email: string; note: string }[]
  }
  const width = Math.max(...people.map((p) => p.name.length))
  process.stdout.write(`\nRekko        ${url}\nPost office  http://127.0.0.1:${postPort}\n\n`)
  for (const p of people) process.stdout.write(`  ${p.name.padEnd(width)}  ${p.note}\n`)
  process.stdout.write(
    `\nOne press signs in; by e-mail it is first.last@hallamere.example and “${DEMO_PASSWORD}”.\nCtrl-C ends ` +
      `it; the data stay. “npm run demo -- --reset” starts afresh.\n`,
  )
}

main().catch((error: unknown) => {
  process.stderr.write(`\n${error instanceof Error ? error.message : String(error)}\n`)
  void end(1)
})
