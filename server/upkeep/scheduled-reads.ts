import { sql } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { named, read } from '../db/read'
import { person } from '../db/schema/people'
import { scheduledPause, scheduledRun } from '../db/schema/upkeep'

const r = named(scheduledRun, 'r')
const u = named(scheduledPause, 'u')
const p = named(person, 'p')

export interface ScheduledRunRow {
  task: string
  beganAt: string
  endedAt: string
  error: string | null
  by: string | null
}

/** The last runs of all that is done by itself, the newest first. */
export const listScheduledRuns = (tx: Tx): Promise<ScheduledRunRow[]> =>
  read(
    tx,
    {
      task: r.task,
      beganAt: UTC(r.beganAt),
      endedAt: UTC(r.endedAt),
      error: r.error,
      by: sql<string | null>`${p.name}`,
    },
    sql`from ${r} left join ${p} on ${p.id} = ${r.byId} order by ${r.beganAt} desc`,
  )

/** What is paused, by whom and since when. */
export const listPauses = (tx: Tx): Promise<{ task: string; by: string; at: string }[]> =>
  read(tx, { task: u.task, by: p.name, at: UTC(u.at) }, sql`from ${u} join ${p} on ${p.id} = ${u.byId}`)
