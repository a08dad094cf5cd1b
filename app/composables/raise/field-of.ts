import type { FieldRef } from '#core/requisition/missing'

const FIELD: Record<string, string> = {
  kind: 'blank-kind',
  owner: 'blank-owner',
  attachments: 'attach',
  'attachment-kind': 'attachment-kind',
  justification: 'justification',
  job: 'blank-job',
  department: 'blank-department',
  'ship-to': 'blank-ship-to',
  'need-by': 'blank-need-by',
  why: 'blank-why',
  'over-budget-reason': 'over-budget-reason',
  'accounting-date': 'blank-accounting',
}

/** The id of the field that an entry of the missing list leads to; `once` says that an address is written by hand. */
export function fieldOf(at: FieldRef, once: boolean): string {
  if (typeof at === 'string') return at === 'ship-to' && once ? 'blank-address-name' : (FIELD[at] ?? '')
  const field = at.field.replace(' ', '-')
  return at.line === null ? field : `line-${at.line}-${field === 'unit' ? 'quantity' : field}`
}

/** Whether a field stands among what more may be said of the whole. */
export const isAmongMore = (at: FieldRef): boolean =>
  at === 'job' || at === 'accounting-date' || (typeof at === 'object' && at.line === null)
