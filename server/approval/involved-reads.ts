import { sql, type SQL, type SQLWrapper } from 'drizzle-orm'
import { isThere, named } from '../db/read'
import { approvalDecision, approvalHanding, approvalSeat } from '../db/schema/approval'
import { remark } from '../db/schema/document'

const s = named(approvalSeat, 's')
const d = named(approvalDecision, 'd')
const h = named(approvalHanding, 'h')
const m = named(remark, 'm')

/** That a person decides or decided on a document, handed it on, or was asked something about it. */
export const isInvolved = (documentId: SQLWrapper, personId: string): SQL =>
  sql`(${isThere(sql`from ${s}
      where ${s.documentId} = ${documentId} and (${s.actorId} = ${personId} or ${s.forId} = ${personId})`)}
    or ${isThere(sql`from ${d} where ${d.documentId} = ${documentId} and ${d.actorId} = ${personId}`)}
    or ${isThere(sql`from ${h} where ${h.documentId} = ${documentId} and ${h.calledBackAt} is null
      and ${personId} in (${h.actorId}, ${h.byId}, ${h.toId})`)}
    or ${isThere(sql`from ${m} where ${m.documentId} = ${documentId} and ${m.toId} = ${personId}`)})`
