import { documentSums } from '#core/base/document-sums'
import { lineNet } from '#core/base/line-net'
import type { Money } from '#core/base/money'
import { splitAmount } from '#core/base/split'
import type { RequestLine, RequestView } from '#shared/contract/request-view'
import { sayOwnValues } from '#shared/words/own-field'
import { sayDiscount } from '#shared/words/requisition'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { requireTerms } from '../settings/reads'
import { readForm } from './form-reads'
import { readOwnNames } from './own-names'
import { readLineSuppliers, readNames, readPayerNames } from './page-reads'
import type { RequisitionLineRow, RequisitionRow } from './reads'
import { frozenLine } from './reservation'

/** What a requisition says, worded for whoever reads it. */
export async function viewRequest({ tx, now, actor }: Context, kept: RequisitionRow): Promise<RequestView> {
  const ways = waysOf(actor.locale)
  const { draft, lines } = kept
  const { organisation, taxCodes, today } = await requireTerms(tx, now)
  const tax = new Map(taxCodes.map((t) => [t.code, t]))
  const names = await readNames(tx, kept.id)
  const suppliers = await readLineSuppliers(tx, kept.id)
  const payers = await readPayerNames(tx, kept.id)
  const form = await readForm(tx, today)
  const own = await readOwnNames(tx, draft, form.ownFields)
  const job = (jobId: string | null) => (jobId === null ? [] : [`job ${own.jobs.get(jobId) ?? ''}`])
  const fields = (on: 'requisition' | 'line', values: RequisitionLineRow['own']) =>
    sayOwnValues(
      form.ownFields.filter((f) => f.on === on),
      values,
      own,
      ways,
    )
  const netOf = (l: RequisitionLineRow) =>
    l.unitPrice === null ? null : lineNet(frozenLine(l, organisation.baseCurrency))
  const payersOf = (l: RequisitionLineRow, net: Money | null): string[] => {
    const of = l.codings.map((c) => payers[c.budgetLineId] ?? '')
    if (net === null || l.codings.length < 2) return of
    const parts = splitAmount(net, { method: l.splitMethod, values: l.codings.map((c) => c.value) })
    return of.map((name, i) => `${name} ${ways.amount(parts[i] ?? net)}`)
  }
  const viewLine = (l: RequisitionLineRow): RequestLine => {
    const net = netOf(l)
    return {
      id: l.id,
      description: l.description,
      quantity: l.quantity,
      unit: l.unit,
      unitPrice: l.unitPrice,
      priceBase: l.priceBase,
      currency: l.currency,
      net,
      listPrice: l.listPrice === l.unitPrice ? null : l.listPrice,
      supplier: l.supplierId === null ? null : (suppliers[l.supplierId] ?? null),
      supplierPart: l.supplierPart,
      paidFrom: payersOf(l, net),
      more: [
        ...(l.secondDescription === '' ? [] : [l.secondDescription]),
        ...(l.needBy === null ? [] : [`by ${ways.date(l.needBy, '')}`]),
        ...sayDiscount(l.discount, l.currency, ways),
        ...job(l.jobId),
        ...fields('line', l.own),
        ...(l.noteToSupplier === '' ? [] : [`to the supplier: ${l.noteToSupplier}`]),
        ...(l.noteInternal === '' ? [] : [`for colleagues: ${l.noteInternal}`]),
      ],
      ordered: l.ordered,
      cancelled: l.cancelled,
    }
  }
  return {
    kind: form.kinds.find((k) => k.code === draft.kind)?.name ?? draft.kind,
    owner: names?.owner ?? '',
    department: names?.department ?? '',
    needBy: draft.needBy,
    why: draft.why,
    justification: draft.justification,
    overBudgetReason: draft.overBudgetReason,
    noteInternal: draft.noteInternal,
    besides: [
      ...job(draft.jobId),
      ...fields('requisition', draft.own),
      ...(draft.noteToSupplier === '' ? [] : [`to the supplier: ${draft.noteToSupplier}`]),
    ],
    delivery: [
      names?.shipTo ?? '',
      draft.shipToDetail,
      draft.attention === '' ? '' : `for the attention of ${draft.attention}`,
      draft.telephone === '' ? '' : `telephone ${draft.telephone}`,
      draft.instructions,
    ].filter((t) => t.trim() !== ''),
    tax: [...new Set(lines.map((l) => l.currency))].map((currency) => {
      const sums = documentSums(
        lines.flatMap((l) => {
          const net = l.currency === currency ? netOf(l) : null
          const code = tax.get(l.taxCode)
          return net === null
            ? []
            : [{ net, tax: { category: code?.category ?? 'S', rate: l.taxRate ?? code?.rate ?? '0' } }]
        }),
        currency,
      )
      return { currency, net: sums.net, tax: sums.tax, total: sums.total }
    }),
    lines: lines.map(viewLine),
  }
}
