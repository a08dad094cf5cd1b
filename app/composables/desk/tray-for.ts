import type { DeskLine, TrayView } from '#shared/contract/order'

type Laid = Pick<DeskLine, 'supplierId' | 'shipToId' | 'currency' | 'agreement'>
type Tray = Pick<TrayView, 'id' | 'supplierId' | 'shipToId' | 'currency' | 'agreement' | 'agreementSaid'> & {
  readonly conditions: Pick<TrayView['conditions'], 'placedAs'>
}

/**
 * Lines by the trays they belong on: of one supplier, to one place, in one currency, drawing on one agreement, in the
 * order given. A line without a supplier takes the one chosen, or else the only one among the lines, and draws as they
 * do.
 */
export function byTray<L extends Laid>(lines: readonly L[], chosenSupplier: string | null): L[][] {
  const [only, another] = [...new Set(lines.flatMap((l) => l.supplierId ?? []))]
  const supplierless = chosenSupplier ?? (another === undefined ? only : undefined) ?? null
  const groups = new Map<string, L[]>()
  for (const l of lines) {
    const supplierId = l.supplierId ?? supplierless
    const draws = l.supplierId === null ? lines.find((x) => x.supplierId === supplierId)?.agreement : l.agreement
    const key = JSON.stringify([supplierId, l.shipToId, l.currency, draws ?? null])
    groups.set(key, [...(groups.get(key) ?? []), l])
  }
  return [...groups.values()]
}

/** Whether a line draws on what a tray draws on; where its buyer said on what, every line may lie there. */
const drawsAlike = (l: Laid, t: Tray): boolean => t.agreementSaid || l.agreement === (t.agreement?.number ?? null)

/**
 * The tray that such lines fit on: the one at hand, else another of their supplier and place; null for a new one. What
 * was placed elsewhere already takes no more, unless it is at hand.
 */
export function trayFor<T extends Tray>(lines: readonly Laid[], trays: readonly T[], atHand: string | null): T | null {
  const fits = (t: Tray) =>
    lines.every(
      (l) =>
        (l.supplierId === null || (l.supplierId === t.supplierId && drawsAlike(l, t))) &&
        l.shipToId === t.shipToId &&
        l.currency === t.currency,
    )
  return (
    trays.find((t) => t.id === atHand && fits(t)) ??
    trays.find((t) => fits(t) && t.conditions.placedAs === null && lines.some((l) => l.supplierId !== null)) ??
    null
  )
}
