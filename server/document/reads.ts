import { sql } from 'drizzle-orm'
import type { AttachedAs } from '#core/requisition/rules'
import type { AttachmentView, RemarkView } from '#shared/contract/document'
import { UTC } from '../db/moments'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { attachment, document, remark } from '../db/schema/document'
import { file } from '../db/schema/file'
import { person } from '../db/schema/people'

const a = named(attachment, 'a')
const d = named(document, 'd')
const f = named(file, 'f')
const m = named(remark, 'm')
const p = named(person, 'p')
const t = named(person, 't')

/** In which state and version a document is now. */
export function findStanding(tx: Tx, id: string): Promise<{ state: string; version: number } | null> {
  return readOne(tx, { state: d.state, version: d.version }, sql`from ${d} where ${d.id} = ${id}`)
}

/** What kind a document is of; null where there is none. */
export async function findKindName(tx: Tx, id: string): Promise<string | null> {
  return (await readOne(tx, { kind: d.kind }, sql`from ${d} where ${d.id} = ${id}`))?.kind ?? null
}

export interface AttachmentRow {
  id: string
  name: string
  kind: AttachedAs
  forSupplier: boolean
  size: number
  mime: string
  fileHash: string
  addedById: string
  at: string
}

/** The files of a document, in the order in which they came. */
export function listAttachments(tx: Tx, documentId: string): Promise<AttachmentRow[]> {
  return read(
    tx,
    {
      id: a.id,
      name: a.name,
      kind: a.kind,
      forSupplier: a.forSupplier,
      size: f.size,
      mime: f.mime,
      fileHash: f.hash,
      addedById: a.addedById,
      at: UTC(a.addedAt),
    },
    sql`from ${a} join ${f} on ${f.hash} = ${a.fileHash} where ${a.documentId} = ${documentId} order by ${a.addedAt},
      ${a.id}`,
  )
}

/** An attachment as its page shows it. */
export function viewAttachment({ id, name, kind, fileHash, size, mime, forSupplier }: AttachmentRow): AttachmentView {
  return { id, name, kind, fileHash, size, mime, forSupplier }
}

/** What was said about a document, oldest first. */
export function listRemarks(tx: Tx, documentId: string): Promise<RemarkView[]> {
  return read(
    tx,
    {
      id: m.id,
      personId: m.personId,
      name: p.name,
      at: UTC(m.at),
      kind: m.kind,
      text: m.text,
      answered: sql<RemarkView['answered']>`${m.answeredAt} is not null`,
      toId: m.toId,
      to: sql<RemarkView['to']>`${t.name}`,
      lineId: m.lineId,
    },
    sql`from ${m} join ${p} on ${p.id} = ${m.personId} left join ${t} on ${t.id} = ${m.toId}
      where ${m.documentId} = ${documentId} order by ${m.at}, ${m.id}`,
  )
}

/** Whether somebody who is not its owner was asked something about a document, and has not answered. */
export async function isAsked(tx: Tx, documentId: string, personId: string): Promise<boolean> {
  const found = await readOne(
    tx,
    { id: m.id },
    sql`from ${m} where ${m.documentId} = ${documentId} and ${m.kind} = 'question' and ${m.toId} = ${personId}
      and ${m.answeredAt} is null limit 1`,
  )
  return found !== null
}
