import type { DecimalText } from '#core/base/decimal'

/** An order as it stood when it was sent: all that its PDF shows, so that it can be made again alike. */
export interface OrderSnapshot {
  readonly number: string
  readonly revision: number
  readonly issuedOn: string
  /** Papers sent before there was a letterhead have none. */
  readonly organisation: { readonly name: string; readonly address: string; readonly letterhead?: string }
  readonly supplier: {
    readonly number: string
    readonly name: string
    readonly address: string
    readonly email: string
  }
  readonly shipTo: { readonly name: string; readonly address: string; readonly details: readonly string[] }
  readonly buyer: string
  readonly terms: { readonly kind: 'net' | 'month-end'; readonly days: number }
  readonly currency: string
  readonly note: string
  readonly lines: readonly {
    readonly description: string
    /**
     * Second description, what is taken off, and notes to the supplier, a line each; orders sent before these existed
     * have none.
     */
    readonly more?: readonly string[]
    readonly supplierPart: string | null
    readonly quantity: DecimalText
    readonly unit: string
    readonly unitPrice: DecimalText
    readonly priceBase: DecimalText
    readonly needBy: string
    readonly net: DecimalText
  }[]
  /** Orders sent before it was asked for have none. */
  readonly freight?: DecimalText
  readonly net: DecimalText
  readonly taxes: readonly {
    readonly category: string
    readonly rate: DecimalText
    readonly taxable: DecimalText
    readonly tax: DecimalText
  }[]
  readonly total: DecimalText
}
