/** An item of an agreement while it is written: its price as it is typed, "" where none is agreed. */
export interface TypedItem {
  readonly itemId: string
  readonly name: string
  readonly supplierPart: string
  /** What the catalogue asks for it today. */
  readonly catalogue: string | null
  price: string
}
