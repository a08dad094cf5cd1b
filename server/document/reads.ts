import { sql } from 'drizzle-orm'
import type { AttachmentKind } from '#core/requisition/rules'
import type { AttachmentView, RemarkView } from '#shared/contract/document'
import { UTC } from '../db/moments'
import type { Tx } from '../db/client'
import { rows } from '../db/rows'

export interface AttachmentRow {
  id: string
  name: string
  kind: AttachmentKind
  forSupplier: boolean
  size: number
  mime: string
  fileHash: string
  addedById: string
  at: string
}

/** The files of a document, in the order in which they came. */
export function listAttachments(tx: Tx, documentId: string): Promise<AttachmentRow[]> {
  return rows<AttachmentRow>(
    tx,
    sql`
    select a.id, a.name, a.kind, a.for_supplier as "forSupplier", f.size, f.mime, f.hash as "fileHash",
      a.added_by_id as "addedById", ${UTC('a.added_at')} as at
    from attachment a join file f on f.hash = a.file_hash where a.document_id = ${documentId} order by a.added_at,
      a.id`,
  )
}

/** An attachment as its page shows it. */
export function viewAttachment({ id, name, kind, size, mime, forSupplier }: AttachmentRow): AttachmentView {
  return { id, name, kind, size, mime, forSupplier }
}

/** What was said about a document, oldest first. */
export function listRemarks(tx: Tx, documentId: string): Promise<RemarkView[]> {
  return rows<RemarkView>(
    tx,
    sql`
    select m.id, m.person_id as "personId", p.name, ${UTC('m.at')} as at, m.kind, m.text,
      m.answered_at is not null as answered
    from remark m join person p on p.id = m.person_id where m.document_id = ${documentId} order by m.at, m.id`,
  )
}
