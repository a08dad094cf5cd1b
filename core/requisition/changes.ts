import type { DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { Draft, DraftLine } from './draft'

/** What of a line or of the whole says something else, where from and to would say nothing to whoever decides. */
export type ChangedPart =
  | 'what it is'
  | 'supplier'
  | 'part number'
  | 'discount'
  | 'who pays'
  | 'day'
  | 'kind'
  | 'title'
  | 'department'
  | 'reason'
  | 'place'
  | 'job'
  | 'notes'
  | 'own fields'
  | 'accounting date'

/** One thing that is not as it was when it was last sent. */
export type RequestChange =
  | { readonly code: 'line-added' | 'line-removed'; readonly what: string }
  | {
      readonly code: 'quantity'
      readonly what: string
      readonly unit: string
      readonly from: DecimalText
      readonly to: DecimalText
    }
  | {
      readonly code: 'price'
      readonly what: string
      readonly currency: string
      readonly from: DecimalText | null
      readonly to: DecimalText | null
    }
  | { readonly code: 'line-otherwise'; readonly what: string; readonly parts: readonly ChangedPart[] }
  | { readonly code: 'need-by'; readonly from: Day | null; readonly to: Day | null }
  | { readonly code: 'otherwise'; readonly parts: readonly ChangedPart[] }

type Parts<T> = readonly (readonly [part: ChangedPart, of: (it: T) => unknown])[]
const OF_LINE: Parts<DraftLine> = [
  ['what it is', (l) => [l.itemId, l.categoryId, l.description, l.secondDescription, l.taxCode]],
  ['supplier', (l) => l.supplierId],
  ['part number', (l) => l.supplierPart],
  ['discount', (l) => l.discount],
  ['who pays', (l) => [l.codings.length > 1 ? l.splitMethod : '', l.codings.map((c) => [c.budgetLineId, c.value])]],
  ['day', (l) => l.needBy],
  ['job', (l) => l.jobId],
  ['notes', (l) => [l.noteToSupplier.trim(), l.noteInternal.trim()]],
  ['own fields', (l) => filled(l.own)],
]
const OF_ALL: Parts<Draft> = [
  ['kind', (d) => d.kind],
  ['title', (d) => d.title.trim()],
  ['department', (d) => d.departmentId],
  ['reason', (d) => [d.why.trim(), d.justification.trim(), d.overBudgetReason.trim()]],
  ['place', (d) => [d.shipToId, d.address, d.shipToDetail, d.attention, d.telephone, d.instructions]],
  ['job', (d) => d.jobId],
  ['notes', (d) => [d.noteToSupplier.trim(), d.noteInternal.trim()]],
  ['own fields', (d) => filled(d.own)],
  ['accounting date', (d) => d.accountingDate],
]
const filled = (own: Draft['own']) =>
  Object.entries(own)
    .filter(([, v]) => v !== '')
    .sort(([a], [b]) => (a < b ? -1 : 1))

function changedParts<T>(parts: Parts<T>, then: T, now: T): ChangedPart[] {
  return parts.flatMap(([part, of]) => (JSON.stringify(of(then)) === JSON.stringify(of(now)) ? [] : [part]))
}

/** What a request says otherwise than when it was last sent: line by line in their order, then the whole of it. */
export function changesBetween(then: Draft, now: Draft): RequestChange[] {
  const before = new Map(then.lines.map((l) => [l.id, l]))
  const kept = new Set(now.lines.map((l) => l.id))
  const whole = changedParts(OF_ALL, then, now)
  return [
    ...now.lines.flatMap((l) => {
      const was = before.get(l.id)
      return was === undefined ? [{ code: 'line-added' as const, what: l.description }] : changesOfLine(was, l)
    }),
    ...then.lines.filter((l) => !kept.has(l.id)).map((l) => ({ code: 'line-removed' as const, what: l.description })),
    ...(then.needBy === now.needBy ? [] : [{ code: 'need-by' as const, from: then.needBy, to: now.needBy }]),
    ...(whole.length === 0 ? [] : [{ code: 'otherwise' as const, parts: whole }]),
  ]
}

function changesOfLine(was: DraftLine, now: DraftLine): RequestChange[] {
  const what = now.description
  const parts = changedParts(OF_LINE, was, now)
  const priced = was.unitPrice !== now.unitPrice || was.priceBase !== now.priceBase || was.currency !== now.currency
  return [
    ...(was.quantity === now.quantity && was.unit === now.unit
      ? []
      : [{ code: 'quantity' as const, what, unit: now.unit, from: was.quantity, to: now.quantity }]),
    ...(priced
      ? [{ code: 'price' as const, what, currency: now.currency, from: was.unitPrice, to: now.unitPrice }]
      : []),
    ...(parts.length === 0 ? [] : [{ code: 'line-otherwise' as const, what, parts }]),
  ]
}
