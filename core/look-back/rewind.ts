import type { Values } from '#core/lists/list'

/** An entry of a list before and after it was written; null where it was not there. */
export interface EntryWritten {
  readonly id: string
  readonly before: Values | null
  readonly after: Values | null
}

/** A list as it was: the entries of now, less what was written since, given with the newest first. */
export function rewind(now: ReadonlyMap<string, Values>, since: readonly EntryWritten[]): Map<string, Values> {
  const then = new Map(now)
  for (const { id, before } of since)
    if (before === null) then.delete(id)
    else then.set(id, before)
  return then
}
