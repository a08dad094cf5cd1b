import type { Context } from '../context'
import { notFound, refused, stale } from '../http/problem'
import { findRecord, type RecordRow } from './record-reads'

/** The record of a supplier that can still be changed, its row locked; at the version that was seen, where given. */
export async function requireRecord(ctx: Context, id: string, version?: number): Promise<RecordRow> {
  const record = await findRecord(ctx.tx, id, true)
  if (record === null) throw notFound('This supplier')
  if (record.standing === 'merged')
    throw refused([`${record.name} was merged into ${record.mergedInto ?? 'another'}; what is kept is kept there.`])
  if (version !== undefined && record.version !== version) throw stale(record.name)
  return record
}
