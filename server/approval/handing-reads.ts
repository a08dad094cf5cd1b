import { sql } from 'drizzle-orm'
import type { Handing } from '#core/approval/handed'
import { beginsWith, type Sending } from '#core/approval/standing'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { approvalHanding, approvalRoute } from '../db/schema/approval'
import { person } from '../db/schema/people'
import { listSendings } from './reads'

const h = named(approvalHanding, 'h')
const e = named(approvalRoute, 'e')
const p = named(person, 'p')

export interface HandingRow extends Handing {
  id: string
  actorId: string
  toName: string
}

/**
 * What those who were asked about a document had others do, in that order, as far as it holds for its last sending; or,
 * with `next`, for the one that is about to be written. It holds as long as approvals do.
 */
export async function listHandings(tx: Tx, documentId: string, next?: Sending): Promise<HandingRow[]> {
  const found = await read(
    tx,
    { id: h.id, how: h.how, byId: h.byId, actorId: h.actorId, toId: h.toId, toName: p.name, round: e.round },
    sql`from ${h} join ${e} on ${e.id} = ${h.routeId} join ${p} on ${p.id} = ${h.toId}
      where ${h.documentId} = ${documentId} and ${h.calledBackAt} is null order by ${h.at}, ${h.id}`,
  )
  if (found.length === 0) return []
  const sendings = await listSendings(tx, documentId)
  const from = beginsWith(next === undefined ? sendings : [...sendings, next])
  return found.filter((f) => f.round >= from)
}
