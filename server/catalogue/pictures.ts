import { randomUUID } from 'node:crypto'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { checkUpload } from '../files/check-upload'
import { findFile, keepFile } from '../files/store'
import { notFound, Problem, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { enqueue } from '../queue/enqueue'
import { findItems } from './reads'
import { deletePicture, insertPicture, listPictures, putFirst } from './picture-store'

const MOST_PICTURES = 8

async function requireItem({ tx }: Context, id: string): Promise<void> {
  if ((await findItems(tx, [id])).length === 0) throw notFound('This item')
}
async function requirePicture({ tx }: Context, itemId: string, id: string) {
  const found = (await listPictures(tx, itemId)).find((p) => p.id === id)
  if (found === undefined) throw notFound('This picture')
  return found
}
async function close(ctx: Context, itemId: string, type: string, picture: { id: string; name: string }): Promise<void> {
  await appendEvent(ctx, {
    type,
    subjectKind: 'item',
    subjectId: itemId,
    after: { id: picture.id, name: picture.name },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id: itemId })
}

/** Keeps a picture of an item, behind those there are; its content decides that it is one, not its name. */
export async function addPicture(
  ctx: Context,
  itemId: string,
  bytes: Buffer,
  given: { readonly name: string },
): Promise<{ id: string }> {
  await requireItem(ctx, itemId)
  if ((await listPictures(ctx.tx, itemId)).length >= MOST_PICTURES)
    throw refused([`An item has at most ${MOST_PICTURES} pictures; take one away first.`])
  const { mime, name } = await checkUpload(bytes, given.name)
  if (mime === 'application/pdf')
    throw new Problem(415, 'wrong-type', 'This is a PDF; a picture of an item is a PNG or a JPEG.')
  const picture = { id: randomUUID(), name }
  const fileHash = await keepFile(ctx.tx, bytes, mime, ctx.now)
  await insertPicture(ctx.tx, { ...picture, itemId, fileHash })
  await close(ctx, itemId, 'picture added', picture)
  return { id: picture.id }
}

/** A picture's bytes. */
export async function readPicture(
  ctx: Context,
  itemId: string,
  id: string,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const { fileHash, name } = await requirePicture(ctx, itemId, id)
  const kept = await findFile(ctx.tx, fileHash)
  if (kept === null) throw notFound('This picture')
  return { bytes: kept.bytes, name, mime: kept.mime }
}

/** Lets a picture stand for its item. */
export async function usePicture(ctx: Context, itemId: string, id: string): Promise<void> {
  const picture = await requirePicture(ctx, itemId, id)
  await putFirst(ctx.tx, itemId, id)
  await close(ctx, itemId, 'picture put first', picture)
}

export async function removePicture(ctx: Context, itemId: string, id: string): Promise<void> {
  const picture = await requirePicture(ctx, itemId, id)
  await deletePicture(ctx.tx, itemId, id)
  await enqueue(ctx.tx, 'drop-files', { hashes: [picture.fileHash] })
  await close(ctx, itemId, 'picture removed', picture)
}
