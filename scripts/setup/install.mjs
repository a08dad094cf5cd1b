// Runs before any package is there: plain Node.js and nothing else.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The checkout's own directory. */
export const ROOT = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '')

/** Ends with a sentence that says what to do. */
function fail(sentence) {
  process.stderr.write(`\n${sentence}\n`)
  process.exit(1)
}

function run(command, args, env = {}) {
  const done = spawnSync(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    encoding: 'utf8',
    env: { ...process.env, ...env },
  })
  return { ok: done.status === 0, said: `${done.stdout ?? ''}${done.stderr ?? ''}${done.error?.message ?? ''}` }
}

/** Says what is done while it is done, and how long it took. */
export async function step(name, work) {
  const from = Date.now()
  process.stdout.write(`${name} … `)
  const result = await work()
  process.stdout.write(`${((Date.now() - from) / 1000).toFixed(1)} s\n`)
  return result
}

function findPostgres() {
  const base = '/usr/lib/postgresql'
  const versions = existsSync(base)
    ? readdirSync(base).filter(
        (v) => existsSync(join(base, v, 'bin/postgres')) && existsSync(join(base, v, 'bin/initdb')),
      )
    : []
  return versions.sort((a, b) => Number(b) - Number(a)).map((v) => join(base, v, 'bin'))[0] ?? null
}

/** What Debian has to give, and how one sees whether it is there. */
const DEBIAN = {
  postgresql: () => findPostgres() !== null,
  chromium: () => existsSync('/usr/bin/chromium'),
  'poppler-utils': () => existsSync('/usr/bin/pdftotext'),
  qpdf: () => existsSync('/usr/bin/qpdf'),
}

async function installDebian(names) {
  const missing = names.filter((n) => !DEBIAN[n]())
  if (missing.length === 0) return
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n']
  const byHand = `apt-get install --no-install-recommends ${missing.join(' ')}`
  if (sudo.length > 0 && !run('sudo', ['-n', 'true']).ok)
    fail(`Rekko needs ${missing.join(', ')} from Debian and may not install them. Run as root: ${byHand}`)
  await step(`Installing ${missing.join(', ')} from Debian`, () => {
    const apt = (...args) => {
      const [command, ...rest] = [...sudo, 'env', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', ...args]
      return run(command, rest)
    }
    apt('update', '-q')
    const done = apt('install', '-y', '-q', '--no-install-recommends', ...missing)
    if (missing.some((n) => !DEBIAN[n]()))
      fail(`Installing did not work. Run as root: ${byHand}\n${done.said.slice(-1500)}`)
  })
}

async function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .update(process.version)
    .digest('hex')
  const mark = join(ROOT, 'node_modules/.rekko-installed')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return
  await step('Installing the packages', () => {
    const done = run('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund'])
    if (!done.ok) fail(`The packages could not be installed:\n${done.said.slice(-2000)}`)
    writeFileSync(mark, lock)
  })
}

/** Brings the machine to where Rekko runs: Node.js 20 or later, Debian's part, the packages. */
export async function prepareMachine(debian) {
  if (Number(process.versions.node.split('.')[0]) < 20) fail('Rekko needs Node.js 20 or later.')
  mkdirSync(join(ROOT, '.rekko'), { recursive: true })
  await installDebian(debian)
  await installPackages()
  const { register } = await import('tsx/esm/api')
  register()
}
