import { type RoleGrant } from '#core/people/rights'

/** Whoever is signed in, as use cases see them. */
export interface Actor {
  readonly id: string
  readonly name: string
  readonly locale: string
  readonly grants: readonly RoleGrant[]
}
