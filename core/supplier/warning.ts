/** What a warning does: it tells, it has to be read before sending, or it stops. */
export type WarningMode = 'informs' | 'must be read' | 'stops'

/** What is to be known of a supplier or an item when a line names it. */
export interface SupplierFacts {
  readonly id: string
  readonly name: string
  /** A proposed one may be asked for, but not ordered from; one on hold, which a blocked one is too, may not. */
  readonly standing: 'active' | 'on hold' | 'proposed'
  readonly leadDays: number
  readonly warning: string | null
  readonly warningMode: WarningMode
}
export interface ItemFacts {
  readonly id: string
  readonly agreed: boolean
  readonly leadDays: number
  readonly warning: string | null
  readonly warningMode: WarningMode
  /** It is in the catalogue no more; what is offered instead, in words. */
  readonly retired: boolean
  readonly successor: string | null
}

export interface Warning {
  /** The id of the supplier or item it comes from. */
  readonly id: string
  /** What was written; null where the item is in the catalogue no more. */
  readonly text: string | null
  readonly mode: WarningMode
  /** What is offered instead of a retired item. */
  readonly successor?: string | null
}

/** The warnings of what a line names, its item's first. */
export function warningsOf(
  line: { readonly itemId: string | null; readonly supplierId: string | null },
  facts: { readonly items: ReadonlyMap<string, ItemFacts>; readonly suppliers: ReadonlyMap<string, SupplierFacts> },
): Warning[] {
  const item = line.itemId === null ? undefined : facts.items.get(line.itemId)
  const named = [item, line.supplierId === null ? undefined : facts.suppliers.get(line.supplierId)]
  const gone: Warning[] =
    item?.retired === true ? [{ id: `${item.id} retired`, text: null, mode: 'informs', successor: item.successor }] : []
  return [
    ...gone,
    ...named.flatMap((n) =>
      n === undefined || n.warning === null ? [] : [{ id: n.id, text: n.warning, mode: n.warningMode }],
    ),
  ]
}
