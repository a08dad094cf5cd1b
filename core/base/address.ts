/** An address as it stands on a label. */
export interface Address {
  readonly name: string
  readonly street: string
  readonly postcode: string
  readonly town: string
  readonly country: string
}
