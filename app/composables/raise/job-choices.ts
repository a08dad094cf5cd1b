import type { Job } from '#core/requisition/job'

/** Jobs to choose from, and none of them. */
export function jobChoices(
  jobs: Iterable<Job>,
  none: string | null = 'no job',
): { id: string; name: string; note?: string }[] {
  return [
    ...(none === null ? [] : [{ id: '', name: none }]),
    ...[...jobs].map((j) => ({ id: j.id, name: j.name, note: j.number })),
  ]
}
