import { dayOf } from '#core/base/day'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { readForm } from './form-reads'
import { listOwnJobs, listOwnFieldValues, readPeopleNames } from './page-reads'

/** Jobs and own fields by which one's own requests can be told apart, with the values that occur. */
export async function readMineFilters({ tx, now, actor }: Context): Promise<{
  jobs: { id: string; number: string; name: string }[]
  fields: { id: string; name: string; values: { id: string; name: string }[] }[]
}> {
  const { timeZone } = await requireOrganisation(tx)
  const { ownFields } = await readForm(tx, dayOf(now, timeZone))
  const jobs = await listOwnJobs(tx, actor.id)
  const held = await listOwnFieldValues(
    tx,
    actor.id,
    ownFields.map((f) => f.id),
  )
  const people = await readPeopleNames(
    tx,
    held.map((h) => h.value),
  )
  const jobNames = new Map(jobs.map((j) => [j.id, j.name]))
  return {
    jobs,
    fields: ownFields.flatMap((f) => {
      const values = held
        .filter((h) => h.field === f.id)
        .map((h) => ({
          id: h.value,
          name:
            f.type === 'person'
              ? (people[h.value] ?? h.value)
              : f.type === 'job'
                ? (jobNames.get(h.value) ?? h.value)
                : h.value,
        }))
      return values.length === 0 ? [] : [{ id: f.id, name: f.name, values }]
    }),
  }
}
