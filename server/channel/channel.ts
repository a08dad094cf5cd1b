import type { Told } from '#core/told/told'

/** What goes to a supplier: what is said, with the files, under a reference that stays when it is tried again. */
export interface Parcel {
  readonly reference: string
  readonly to: { readonly name: string; readonly address: string }
  readonly from: { readonly name: string; readonly address: string }
  readonly told: Told
  readonly files: readonly { readonly name: string; readonly mime: string; readonly bytes: Buffer }[]
}

/** What a supplier says about how it is reached. */
export interface Reachable {
  readonly email: string | null
}

/** A way in which what was sent reaches a supplier. */
export interface Channel {
  /** The address that this channel uses; null while the supplier has none. */
  addressOf(supplier: Reachable): string | null
  /** A reference that no other sending has, in the channel's own form. */
  referenceOf(id: string): string
  /** Hands the parcel over, at least once; throws where it was not taken, and is then tried again. */
  send(parcel: Parcel): Promise<void>
}
