import { spawn, type ChildProcess } from 'node:child_process'
import { createWriteStream } from 'node:fs'
import { join } from 'node:path'

export interface Running {
  readonly child: ChildProcess
  stop: () => Promise<void>
}

/** Starts a program of ours that ends with this one; what it says goes to a file, or here. */
export function startProgram(
  root: string,
  args: readonly string[],
  env: Record<string, string>,
  log: string | 'inherit',
): Running {
  // setpriv: when this process is killed hard, the program is told to end too.
  const child = spawn('setpriv', ['--pdeathsig', 'TERM', process.execPath, ...args], {
    cwd: root,
    env: { ...process.env, ...env },
    detached: true,
    stdio: ['ignore', log === 'inherit' ? 'inherit' : 'pipe', log === 'inherit' ? 'inherit' : 'pipe'],
  })
  if (log !== 'inherit') {
    const file = createWriteStream(log, { flags: 'a' })
    // One of the two may end before the other has said its last.
    child.stdout?.pipe(file, { end: false })
    child.stderr?.pipe(file, { end: false })
    child.once('close', () => {
      file.end()
    })
  }
  return { child, stop: () => endChild(child) }
}

function endChild(child: ChildProcess): Promise<void> {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) {
      resolve()
      return
    }
    const late = setTimeout(() => {
      child.kill('SIGKILL')
    }, 12_000)
    child.once('exit', () => {
      clearTimeout(late)
      resolve()
    })
    child.kill('SIGTERM')
  })
}

/** Where answers to mails of a server come in: the port on loopback, and their domain. */
export interface Answers {
  readonly port: number
  readonly domain: string
}
/** What answers are addressed to in worlds made here. */
export const ANSWERS_DOMAIN = 'answers.hallamere.example'
/** By this name the post office says what it found out of a sender. */
export const ANSWERS_RELAY = 'post-office.example'

export interface ServerSettings {
  readonly databaseUrl: string
  readonly port: number
  readonly smtpPort: number
  readonly sessionSecret: string
  readonly isDemo: boolean
  /** Where its clock starts; the machine's where absent. Only a demo may have one of its own. */
  readonly now?: Date | undefined
  readonly postOfficeUrl?: string
  /** Where answers to its mails come in; nowhere where absent. */
  readonly answers?: Answers
  /** Its cookies as behind HTTPS. */
  readonly isSecure?: boolean
}

/** Starts the built server. */
export function startServer(root: string, s: ServerSettings, log: string | 'inherit'): Running {
  return startProgram(
    root,
    ['--max-semi-space-size=8', '--max-old-space-size=256', join(root, '.output/server/index.mjs')],
    {
      NODE_ENV: 'production',
      DATABASE_URL: s.databaseUrl,
      HOST: '127.0.0.1',
      PORT: String(s.port),
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(s.port),
      REKKO_SESSION_SECRET: s.sessionSecret,
      REKKO_DEMO: s.isDemo ? '1' : '',
      REKKO_COOKIE_SECURE: s.isSecure === true ? '1' : '',
      REKKO_SMTP_URL: `smtp://127.0.0.1:${s.smtpPort}`,
      REKKO_PUBLIC_URL: `http://127.0.0.1:${s.port}`,
      REKKO_ROOT: root,
      REKKO_NOW: s.now?.toISOString() ?? '',
      // Nothing is inherited: two servers cannot take letters at one port.
      REKKO_ANSWERS_PORT: s.answers === undefined ? '' : String(s.answers.port),
      REKKO_ANSWERS_DOMAIN: s.answers?.domain ?? '',
      REKKO_ANSWERS_RELAY: ANSWERS_RELAY,
      ...(s.postOfficeUrl === undefined ? {} : { REKKO_POST_OFFICE_URL: s.postOfficeUrl }),
    },
    log,
  )
}

/** Starts the post office and waits until it is open. */
export async function startPostOffice(
  root: string,
  smtpPort: number,
  httpPort: number,
  directory: string,
  log: string | 'inherit',
  answers?: Answers,
): Promise<Running> {
  const running = startProgram(
    root,
    ['--import', 'tsx', join(root, 'stand-ins/post-office/post-office.ts')],
    {
      POST_OFFICE_SMTP_PORT: String(smtpPort),
      POST_OFFICE_HTTP_PORT: String(httpPort),
      POST_OFFICE_DIRECTORY: directory,
      POST_OFFICE_NAME: ANSWERS_RELAY,
      POST_OFFICE_ROUTES: answers === undefined ? '' : `${answers.domain}=127.0.0.1:${answers.port}`,
    },
    log,
  )
  await waitFor(`http://127.0.0.1:${httpPort}/messages.json`, running)
  return running
}

/** Waits until an address answers, or says that its program ended. */
export async function waitFor(url: string, running: Running, seconds = 60): Promise<void> {
  for (const until = Date.now() + seconds * 1000; Date.now() < until;) {
    if (running.child.exitCode !== null) throw new Error(`A program ended before ${url} answered.`)
    const ok = await fetch(url).then(
      (r) => r.ok,
      () => false,
    )
    if (ok) return
    await new Promise((r) => {
      setTimeout(r, 100)
    })
  }
  throw new Error(`${url} did not answer within ${seconds} seconds.`)
}
