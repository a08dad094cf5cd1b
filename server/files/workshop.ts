import { fork, type ChildProcess } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { Problem } from '../http/problem'
import type { Answer, Given, Job, Made, Errand } from './workshop-jobs'

/** How long a job may take, how much memory its process may hold, and what is said when that is not enough. */
const LIMITS: Record<Job, { readonly seconds: number; readonly megabytes: number; readonly sentence: string }> = {
  'read-sheet': {
    seconds: 10,
    megabytes: 400,
    sentence:
      'Reading this file takes more time or memory than Rekko gives one. Paste the range into the lines, or save its ' +
      'cells alone as CSV.',
  },
  'read-rows': { seconds: 20, megabytes: 400, sentence: 'Reading this file takes too much time or memory; divide it.' },
  'read-order-response': {
    seconds: 10,
    megabytes: 400,
    sentence: 'Reading this file takes too much time or memory; type in what it says.',
  },
  'write-xlsx': {
    seconds: 60,
    megabytes: 400,
    sentence: 'This is too much for one spreadsheet. Narrow what is shown, or take it as CSV.',
  },
  'replay-policy': {
    seconds: 60,
    megabytes: 400,
    sentence: 'This is too much at once. Replay fewer requests, or a policy with fewer rules.',
  },
  'propose-orders': {
    seconds: 60,
    megabytes: 500,
    sentence: 'These are too many lines for one proposal. Say how many requests go to an order at most.',
  },
  'make-pdf': {
    seconds: 60,
    megabytes: 700,
    sentence: 'This is too much for one PDF. Divide it, or leave out what is not needed.',
  },
}
/** More than these wait for nobody: whoever comes later is asked to come again. */
const MOST_WAITING = 40
const LOOKED_AT_MS = 50
/** A process that was not needed for so long is ended. */
const IDLE_MS = 60_000

/** The script that the workshop is: its source, unless a server says where the one lies that was built. */
let script = fileURLToPath(new URL('./workshop-process.ts', import.meta.url))

/** Says where the script lies. */
export function useWorkshop(path: string): void {
  script = path
}

/** One process for one kind of work, started when it is first needed, and anew after it was ended. */
class Place {
  private child: ChildProcess | null = null
  private turn: Promise<unknown> = Promise.resolve()
  private waiting = 0
  private idle: NodeJS.Timeout | undefined

  constructor(private readonly job: Job) {}

  do(given: readonly unknown[]): Promise<unknown> {
    if (this.waiting >= MOST_WAITING)
      return Promise.reject(new Problem(503, 'busy', 'Too much waits to be done just now. Try again in a moment.'))
    this.waiting += 1
    const mine = this.turn
      .then(() => this.work(given))
      .finally(() => {
        this.waiting -= 1
        if (this.waiting > 0) return
        this.idle = setTimeout(() => {
          this.end()
        }, IDLE_MS).unref()
      })
    this.turn = mine.catch(() => undefined)
    return mine
  }

  /** Ends the process; what comes next has a new one. */
  end(): void {
    this.child?.kill('SIGKILL')
    this.child = null
  }

  private work(given: readonly unknown[]): Promise<unknown> {
    clearTimeout(this.idle)
    const child = (this.child ??= this.start())
    const { seconds, megabytes, sentence } = LIMITS[this.job]
    return new Promise((resolve, reject) => {
      const end = () => {
        clearTimeout(deadline)
        clearInterval(watch)
        child.off('message', answered).off('exit', gone)
        child.channel?.unref()
      }
      const stop = () => child.kill('SIGKILL')
      // Ended from outside, by us or for want of memory; one that ends by itself is broken.
      const gone = (code: number | null) => {
        end()
        reject(
          code === null ? new Problem(422, 'too-much', sentence) : new Error(`The workshop ended by itself: ${code}.`),
        )
      }
      const answered = (answer: Answer) => {
        end()
        if ('made' in answer) resolve(answer.made)
        else if ('problem' in answer)
          reject(new Problem(answer.problem.status, answer.problem.type, answer.problem.detail))
        else reject(new Error(answer.fault))
      }
      const deadline = setTimeout(stop, seconds * 1000)
      const watch = setInterval(() => {
        if (residentMegabytes(child.pid) > megabytes) stop()
      }, LOOKED_AT_MS)
      child.channel?.ref()
      child.on('message', answered).on('exit', gone)
      child.send({ job: this.job, given } satisfies Errand)
    })
  }

  private start(): ChildProcess {
    const child = fork(script, {
      // It reads what strangers send and gets no secret of the server's.
      env: { PATH: process.env.PATH, NODE_ENV: 'production' },
      execArgv: [
        ...(script.endsWith('.ts') ? ['--import', 'tsx'] : []),
        `--max-old-space-size=${LIMITS[this.job].megabytes}`,
      ],
      serialization: 'advanced',
    })
    child.unref()
    child.channel?.unref()
    child.once('exit', () => {
      if (this.child === child) this.child = null
    })
    child.on('error', () => undefined)
    return child
  }
}

/** What a process holds in memory; limits of V8 overlook its buffers. Nothing where the system does not tell. */
function residentMegabytes(pid: number | undefined): number {
  try {
    const pages = Number(readFileSync(`/proc/${String(pid)}/statm`, 'utf8').split(' ')[1])
    return (pages * 4096) / 1_000_000
  } catch {
    return 0
  }
}

const places = new Map<Job, Place>()

/**
 * Has a job done by a process of its own, one after another, so that neither a hostile file nor a long one holds up or
 * ends the server. Throws the problem that the job found, or, where its process was ended, one that says what to do.
 */
export async function inWorkshop<J extends Job>(job: J, ...given: Given<J>): Promise<Made<J>> {
  const place = places.get(job) ?? new Place(job)
  places.set(job, place)
  return (await place.do(given)) as Made<J>
}

/** Ends its processes; what they are at is lost. */
export function closeWorkshop(): void {
  for (const place of places.values()) place.end()
}
