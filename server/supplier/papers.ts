import { randomUUID } from 'node:crypto'
import type { Day } from '#core/base/day'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { checkUpload } from '../files/check-upload'
import { keepFile } from '../files/store'
import { notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { findPaper, listPapers } from './record-reads'
import { deletePaper, insertPaper } from './record-store'
import { requireRecord } from './require-record'

const MOST_PAPERS = 50

/** Keeps a paper about a supplier, until it ends where it does; its content decides what file it is, not its name. */
export async function addPaper(
  ctx: Context,
  id: string,
  bytes: Buffer,
  given: { readonly name: string; readonly validUntil: Day | null },
): Promise<{ id: string }> {
  await requireRecord(ctx, id)
  if ((await listPapers(ctx.tx, id)).length >= MOST_PAPERS)
    throw refused([`A supplier has at most ${MOST_PAPERS} papers; take one away first.`])
  const { mime, name } = await checkUpload(bytes, given.name)
  const fileHash = await keepFile(ctx.tx, bytes, mime, ctx.now)
  const paperId = randomUUID()
  const { validUntil } = given
  await insertPaper(ctx.tx, {
    id: paperId,
    supplierId: id,
    name,
    validUntil,
    fileHash,
    addedById: ctx.actor.id,
    addedAt: ctx.now,
  })
  await appendEvent(ctx, {
    type: 'paper added',
    subjectKind: 'supplier',
    subjectId: id,
    after: { id: paperId, name, validUntil, fileHash },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id })
  return { id: paperId }
}

export async function readPaper(ctx: Context, id: string, paperId: string) {
  const found = await findPaper(ctx.tx, id, paperId)
  if (found === null) throw notFound('This paper')
  return found
}

export async function removePaper(ctx: Context, id: string, paperId: string): Promise<void> {
  await requireRecord(ctx, id)
  const { name, validUntil, fileHash } = await readPaper(ctx, id, paperId)
  await deletePaper(ctx.tx, id, paperId)
  await enqueue(ctx.tx, 'drop-files', { hashes: [fileHash] })
  await appendEvent(ctx, {
    type: 'paper removed',
    subjectKind: 'supplier',
    subjectId: id,
    before: { id: paperId, name, validUntil },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id })
}
