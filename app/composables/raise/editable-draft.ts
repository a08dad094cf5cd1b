import { BLANK_DRAFT, type Draft, type DraftLine } from '#core/requisition/draft'

type Mutable<T> = { -readonly [K in keyof T]: T[K] }
/** A line while it is written. */
export interface EditableLine extends Omit<Mutable<DraftLine>, 'own'> {
  own: Record<string, string>
}
/** A requisition while it is written. */
export interface EditableDraft extends Omit<Mutable<Draft>, 'lines' | 'readWarnings' | 'own'> {
  lines: EditableLine[]
  readWarnings: string[]
  own: Record<string, string>
}

/** A draft in which nothing is written yet. */
export const emptyDraft = (departmentId: string | null, shipToId: string | null): EditableDraft =>
  structuredClone({ ...BLANK_DRAFT, departmentId, shipToId }) as EditableDraft
