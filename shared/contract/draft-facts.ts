import type { DraftFacts, OwnRecent, PayingLine } from '#core/requisition/draft-facts'
import type { Job } from '#core/requisition/job'
import type { AgreementFacts } from '#core/requisition/line-agreement'
import type { OwnField } from '#core/requisition/own-field'
import type { AttachedAs, RequestKind, RequestRule } from '#core/requisition/rules'
import type { ItemFacts, SupplierFacts } from '#core/supplier/warning'
import type { Absence, Person } from '#core/people/person'
import type { Policy } from '#core/approval/policy'

/** The facts of one draft as they cross JSON: lists where the core has maps. */
export interface DraftFactsWire {
  readonly today: string
  readonly baseCurrency: string
  readonly fiscalStartMonth: number
  readonly closedPeriods: readonly { readonly year: number; readonly period: number }[]
  readonly ownerId: string
  readonly raisedById: string
  readonly ownRecent: readonly OwnRecent[]
  readonly departmentIds: readonly string[]
  readonly branch: readonly string[]
  readonly budgetLines: readonly PayingLine[]
  readonly taxCodes: readonly {
    readonly code: string
    readonly name: string
    readonly category: string
    readonly rate: string
    readonly retired?: boolean
  }[]
  readonly perBase: readonly (readonly [string, string])[]
  readonly suppliers: readonly SupplierFacts[]
  readonly items: readonly ItemFacts[]
  readonly agreements: readonly AgreementFacts[]
  readonly holidays: readonly string[]
  readonly kinds: readonly RequestKind[]
  readonly ownFields: readonly OwnField[]
  readonly rules: readonly RequestRule[]
  readonly jobs: readonly Job[]
  readonly attached: readonly AttachedAs[]
  readonly policy: Policy
  readonly people: readonly Person[]
  readonly absences: readonly Absence[]
}

/** Makes the core's facts of those that came over the wire. */
export function readFacts(wire: DraftFactsWire): DraftFacts {
  return {
    today: wire.today,
    baseCurrency: wire.baseCurrency,
    fiscalStartMonth: wire.fiscalStartMonth,
    closedPeriods: wire.closedPeriods,
    ownerId: wire.ownerId,
    raisedById: wire.raisedById,
    ownRecent: wire.ownRecent,
    departmentIds: wire.departmentIds,
    branch: wire.branch,
    budgetLines: new Map(wire.budgetLines.map((l) => [l.id, l])),
    taxCodes: new Map(wire.taxCodes.map((t) => [t.code, t])),
    perBase: new Map(wire.perBase),
    suppliers: new Map(wire.suppliers.map((x) => [x.id, x])),
    items: new Map(wire.items.map((x) => [x.id, x])),
    agreements: wire.agreements,
    holidays: new Set(wire.holidays),
    kinds: new Map(wire.kinds.map((k) => [k.code, k])),
    ownFields: wire.ownFields,
    rules: wire.rules,
    jobs: new Map(wire.jobs.map((j) => [j.id, j])),
    attached: wire.attached,
    policy: wire.policy,
    people: { people: new Map(wire.people.map((p) => [p.id, p])), absences: wire.absences, today: wire.today },
  }
}
