import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { insertRemark } from '../document/store'
import { tell } from '../document/tell'
import { invalid } from '../http/problem'
import { notifyChange } from '../live/notify'
import { lockOpenLines } from './open-lines'

/**
 * Asks whoever asked for a line something about it. Until they answer, or it is taken up again, it waits on no Desk;
 * the request stays as it was approved.
 */
export async function askAboutLine(ctx: Context, lineId: string, text: string): Promise<{ id: string }> {
  const { tx, actor, now } = ctx
  const asked = text.trim()
  if (asked === '') throw invalid('Write the question first.', [{ field: 'text', message: 'is empty' }])
  const [found] = await lockOpenLines(ctx, [lineId])
  if (found === undefined) throw invalid('Choose a line first.')
  const { requisition, line } = found
  const { id, ownerId, number } = requisition
  if (ownerId === actor.id) throw invalid('You asked for it yourself.')
  const said = requisition.lines.length === 1 ? asked : `${line.description}: ${asked}`
  await insertRemark(tx, { documentId: id, personId: actor.id, at: now, kind: 'question', text: said, lineId })
  const after = { text: said, lineId }
  await appendEvent(ctx, { type: 'asked about a line', subjectKind: 'requisition', subjectId: id, after })
  const told = { code: 'asked', by: actor.name, number, title: requisition.draft.title, text: said } as const
  await tell(ctx, ownerId, requisition, told, { path: `/trail/${id}` })
  await notifyChange(tx, { kind: 'requisition', id })
  return { id }
}
