import { Problem } from '../http/problem'
import { JOBS, type Answer, type Errand } from './workshop-jobs'

/** The workshop itself: a process without secrets and without a database, which does one thing after another. */
process.on('message', (errand: Errand) => {
  const work = JOBS[errand.job] as (...given: readonly unknown[]) => Promise<unknown>
  void Promise.resolve()
    .then(() => work(...errand.given))
    .then(
      (made): Answer => ({ made }),
      (error: unknown): Answer =>
        error instanceof Problem
          ? { problem: { status: error.status, type: error.type, detail: error.detail } }
          : { fault: error instanceof Error ? (error.stack ?? error.message) : String(error) },
    )
    // Its server may be gone meanwhile: then nobody is told, and the process ends with the next event.
    .then((answer) => process.send?.(answer, undefined, undefined, () => undefined))
})
process.on('disconnect', () => process.exit(0))
// An interrupt at the terminal reaches it too; its server says when it ends.
process.on('SIGINT', () => undefined)
