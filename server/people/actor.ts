import type { RoleGrant } from '#core/people/rights'

/** Whoever is signed in, as use cases see them. */
export interface Actor {
  readonly id: string
  readonly name: string
  readonly locale: string
  readonly grants: readonly RoleGrant[]
  /** A second factor is asked of them that they do not have yet. */
  readonly lacksFactor?: boolean
  /** They act by a mail that they answered. */
  readonly byMail?: boolean
}

/** Rekko itself, where it acts without being asked by anybody. */
export const REKKO: Actor = { id: '', name: 'Rekko', locale: 'en-GB', grants: [] }
