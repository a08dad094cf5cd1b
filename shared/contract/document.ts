import { z } from 'zod'
import { ATTACHMENT_KINDS } from '#core/requisition/rules'

/** What hangs on every document: its files and what was said about it. */
export const attachedAs = z.enum([...ATTACHMENT_KINDS, 'unsaid'])
export const attachment = z.object({
  id: z.string(),
  name: z.string(),
  /** `unsaid` until somebody said what it is. */
  kind: attachedAs,
  /** Files with the same content have the same. */
  fileHash: z.string(),
  size: z.number(),
  mime: z.string(),
  forSupplier: z.boolean(),
})
export type AttachmentView = z.infer<typeof attachment>
export const remark = z.object({
  id: z.string(),
  personId: z.string(),
  name: z.string(),
  at: z.string(),
  kind: z.enum(['question', 'answer', 'reason', 'change wished', 'cancellation wished']),
  text: z.string(),
  answered: z.boolean(),
  /** Of a question: whom it is for, where that is not the owner. */
  toId: z.string().nullable(),
  to: z.string().nullable(),
  /** Of a buyer’s question: the line that waits for the answer. */
  lineId: z.string().nullable(),
})
export type RemarkView = z.infer<typeof remark>
