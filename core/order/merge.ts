import { NOTHING, dec, type Decimal, type DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { Adjustment } from '#core/base/line-net'
import { adjustmentsOfPart } from '#core/budget/effect'
import { priceFor, type PriceStep } from '#core/catalogue/price'

/** A part of a requisition line that lies on a tray. */
export interface TrayPart {
  readonly requisitionLineId: string
  readonly requisitionId: string
  readonly quantity: DecimalText
  readonly itemId: string | null
  readonly description: string
  readonly secondDescription: string
  readonly noteToSupplier: string
  readonly unit: string
  readonly unitPrice: DecimalText
  /** The price was written by hand instead of the catalogue's: it is what was approved, and stays. */
  readonly isByHand: boolean
  /** What is taken off the requisition line, of which the part is `quantity` of `requested`. */
  readonly adjustments: readonly Adjustment[]
  readonly requested: DecimalText
  readonly priceBase: DecimalText
  readonly currency: string
  readonly taxCode: string
  readonly supplierPart: string | null
  readonly needBy: Day
  readonly shipToId: string
}

/** One line of an order, with how much of it belongs to which requisition line. */
export interface MergedLine {
  readonly itemId: string | null
  readonly description: string
  readonly secondDescription: string
  /** What askers wish to tell the supplier about it, each once. */
  readonly notes: readonly string[]
  readonly unit: string
  readonly quantity: DecimalText
  readonly unitPrice: DecimalText
  readonly adjustments: readonly Adjustment[]
  readonly priceBase: DecimalText
  readonly taxCode: string
  readonly supplierPart: string | null
  readonly needBy: Day
  readonly sources: readonly { readonly requisitionLineId: string; readonly quantity: DecimalText }[]
}

/**
 * Lays parts together into order lines, in the order given: those of one item, unit, need-by, ship-to
 * and tax merge, free text never; coding does not hinder it. A second description, a percentage taken off
 * and a price written by hand keep apart what differs in them; amounts taken off add up. The price break
 * follows the item's total on the whole order, also over several need-by dates. `prices` holds the steps
 * of the items that have any.
 */
export function mergeParts(
  parts: readonly TrayPart[],
  prices: ReadonlyMap<string, readonly PriceStep[]>,
  today: Day,
): MergedLine[] {
  const totals = new Map<string, Decimal>()
  for (const p of parts)
    if (p.itemId !== null) totals.set(p.itemId, (totals.get(p.itemId) ?? NOTHING).plus(dec(p.quantity)))
  const merged = new Map<string, MergedLine>()
  for (const p of parts) {
    const percents = p.adjustments.flatMap((a) => (a.percent === undefined ? [] : [a.percent]))
    const key =
      p.itemId === null
        ? p.requisitionLineId
        : JSON.stringify([
            p.itemId,
            p.unit,
            p.needBy,
            p.shipToId,
            p.taxCode,
            p.secondDescription,
            percents,
            p.isByHand ? [p.unitPrice, p.priceBase] : null,
          ])
    const before = merged.get(key)
    const steps = p.itemId === null ? undefined : prices.get(p.itemId)
    const total = p.itemId === null ? dec(p.quantity) : (totals.get(p.itemId) ?? dec(p.quantity))
    const step = steps === undefined || p.isByHand ? null : priceFor(steps, total.toFixed(), today)
    merged.set(key, {
      itemId: p.itemId,
      description: p.description,
      secondDescription: p.secondDescription,
      unit: p.unit,
      notes: [...new Set([...(before?.notes ?? []), ...(p.noteToSupplier === '' ? [] : [p.noteToSupplier])])],
      adjustments: addUp(before?.adjustments, adjustmentsOfPart(p.adjustments, p.quantity, p.requested)),
      quantity: dec(before?.quantity ?? '0')
        .plus(dec(p.quantity))
        .toFixed(),
      unitPrice: step?.unitPrice ?? p.unitPrice,
      priceBase: p.priceBase,
      taxCode: p.taxCode,
      supplierPart: p.supplierPart,
      needBy: p.needBy,
      sources: [...(before?.sources ?? []), { requisitionLineId: p.requisitionLineId, quantity: p.quantity }],
    })
  }
  return [...merged.values()]
}

/** The amounts of two lists of adjustments added up; their percentages are the same. */
function addUp(before: readonly Adjustment[] | undefined, more: readonly Adjustment[]): Adjustment[] {
  return more.map((a, i) =>
    a.amount === undefined
      ? a
      : {
          ...a,
          amount: dec(before?.[i]?.amount ?? '0')
            .plus(dec(a.amount))
            .toFixed(),
        },
  )
}
