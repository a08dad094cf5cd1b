import { isId } from '#core/base/id'
import type { Draft } from '#core/requisition/draft'
import type { OwnField } from '#core/requisition/own-field'
import type { OwnNames } from '#shared/words/own-field'
import type { Tx } from '../db/client'
import { listJobs } from './form-reads'
import { readPeopleNames } from './page-reads'

/** The names of all that a requisition's own fields and jobs refer to. */
export async function readOwnNames(tx: Tx, draft: Draft, fields: readonly OwnField[]): Promise<OwnNames> {
  const values = (type: 'person' | 'job') =>
    fields
      .filter((f) => f.type === type)
      .flatMap((f) => [draft.own, ...draft.lines.map((l) => l.own)].flatMap((own) => own[f.id] ?? []))
  const jobIds = [draft.jobId, ...draft.lines.map((l) => l.jobId), ...values('job')].flatMap((id) =>
    id !== null && isId(id) ? [id] : [],
  )
  return {
    people: new Map(Object.entries(await readPeopleNames(tx, values('person')))),
    jobs: new Map((await listJobs(tx, [...new Set(jobIds)], true)).map((j) => [j.id, `${j.number} ${j.name}`])),
  }
}
