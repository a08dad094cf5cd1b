import type { PeopleFacts } from '#core/people/person'
import type { SupplierSort } from './policy'

/** A budget line as a document may be coded to it. */
export interface WorldLine {
  readonly id: string
  readonly departmentId: string
  readonly account: string
  readonly project?: string | null
  readonly holderId: string | null
}

/** An own field, with what may be chosen in it and where it is asked for; an empty list is everywhere. */
export interface WorldField {
  readonly id: string
  readonly name: string
  readonly on: 'requisition' | 'line'
  readonly required: boolean
  readonly kinds: readonly string[]
  readonly departmentIds: readonly string[]
  readonly categoryIds: readonly string[]
  readonly choices: readonly string[]
}

/** The organisation a policy is looked at in: who raises for what, and what may pay. */
export interface PolicyWorld {
  readonly currency: string
  readonly people: PeopleFacts
  /** Each department with all above it, itself first. */
  readonly departments: readonly { readonly id: string; readonly branch: readonly string[] }[]
  /** The departments that each person may raise for. */
  readonly openTo: ReadonlyMap<string, readonly string[]>
  /** Whose orders are sent for a decision: those who may order, each for the department that they are of. */
  readonly buyers: readonly string[]
  readonly kinds: readonly string[]
  readonly categories: readonly string[]
  /** How suppliers of lines may stand. */
  readonly suppliers: readonly SupplierSort[]
  /** In which lines may be priced. */
  readonly currencies: readonly string[]
  readonly lines: readonly WorldLine[]
  /** Own fields in which something is chosen. */
  readonly ownFields?: readonly WorldField[]
}
