import type { PgInsertValue, PgTable } from 'drizzle-orm/pg-core'
import { searchTextOf } from '#core/catalogue/search-text'
import type { DecimalText } from '#core/base/decimal'
import type { Day } from '#core/base/day'
import type { PriceStep } from '#core/catalogue/price'
import type { OwnField } from '#core/requisition/own-field'
import type { RequestRule } from '#core/requisition/rules'
import type { Condition, RuleDocuments, Who } from '#core/approval/policy'
import type { PolicyForm } from '#core/approval/policy-form'
import type { Role } from '#core/people/rights'
import { approvalPolicy, approvalRule, approvalStep } from '../db/schema/approval'
import { account, budgetBalance, budgetLine } from '../db/schema/budget'
import { category, item, itemPrice } from '../db/schema/catalogue'
import { absence, department, departmentMember, person, roleGrant, shipTo } from '../db/schema/people'
import { exchangeRate, fiscalPeriod, holiday, organisation, taxCode } from '../db/schema/settings'
import { job, ownField, requestKind, requestRule } from '../db/schema/request-form'
import { supplier } from '../db/schema/supplier'
import type { Tx } from '../db/client'

/** An organisation as it is described to Rekko before its first day. Ids are the describer's. */
export interface OrganisationDescription {
  readonly organisation: typeof organisation.$inferInsert
  readonly shipTos: readonly (typeof shipTo.$inferInsert)[]
  readonly departments: readonly (typeof department.$inferInsert)[]
  readonly people: readonly (typeof person.$inferInsert & {
    readonly alsoFor?: readonly string[]
    readonly roles?: readonly Role[]
  })[]
  readonly absences: readonly {
    readonly personId: string
    readonly from: Day
    readonly until: Day
    readonly substituteId: string | null
    readonly note: string
  }[]
  readonly holidays: readonly { readonly day: Day; readonly name: string }[]
  readonly taxCodes: readonly (typeof taxCode.$inferInsert)[]
  readonly rates: readonly (typeof exchangeRate.$inferInsert)[]
  readonly periods: readonly (typeof fiscalPeriod.$inferInsert)[]
  readonly accounts: readonly (typeof account.$inferInsert)[]
  readonly budgetLines: readonly (typeof budgetLine.$inferInsert & { readonly perPeriod: readonly DecimalText[] })[]
  readonly suppliers: readonly (typeof supplier.$inferInsert)[]
  readonly categories: readonly (typeof category.$inferInsert)[]
  readonly items: readonly (Omit<typeof item.$inferInsert, 'searchText'> & {
    readonly supplierName: string
    readonly prices: readonly PriceStep[]
  })[]
  readonly kinds: readonly (typeof requestKind.$inferInsert)[]
  readonly jobs: readonly (typeof job.$inferInsert)[]
  readonly policy: {
    readonly id: string
    readonly name: string
    readonly inForceAt: Date
    readonly ending: 'fallback' | 'passes'
    readonly ownLimitDays: number | null
    readonly byMail?: PolicyForm['byMail']
    readonly fallbackId: string | null
    readonly rules: readonly {
      readonly name: string
      readonly documents?: RuleDocuments
      readonly conditions: readonly Condition[]
      readonly sparesManagers?: boolean
      readonly steps: readonly { readonly rank: number; readonly who: Who; readonly mustCover?: boolean }[]
    }[]
  }
}

/** Writes rows, where there are any. */
async function insertAll<T extends PgTable>(tx: Tx, table: T, rows: readonly PgInsertValue<T>[]): Promise<void> {
  if (rows.length > 0) await tx.insert(table).values([...rows])
}

/** Enters an organisation whole into an empty database. */
export async function loadOrganisation(tx: Tx, d: OrganisationDescription): Promise<void> {
  await tx.insert(organisation).values(d.organisation)
  await insertAll(tx, shipTo, d.shipTos)
  await insertAll(tx, department, d.departments)
  // Managers may come later in the list than those they manage.
  for (const p of d.people) await tx.insert(person).values({ ...columnsOf(p), managerId: null })
  for (const p of d.people)
    if (p.managerId != null)
      await tx
        .insert(person)
        .values(columnsOf(p))
        .onConflictDoUpdate({ target: person.id, set: { managerId: p.managerId } })
  const members = d.people.flatMap((p) =>
    (p.alsoFor ?? []).map((departmentId) => ({ personId: p.id ?? '', departmentId })),
  )
  await insertAll(tx, departmentMember, members)
  const roles = d.people.flatMap((p) => (p.roles ?? []).map((role) => ({ personId: p.id ?? '', role })))
  await insertAll(tx, roleGrant, roles)
  await insertAll(
    tx,
    absence,
    d.absences.map(({ from: fromDay, until: untilDay, ...a }) => ({ ...a, fromDay, untilDay })),
  )
  await insertAll(tx, holiday, d.holidays)
  await insertAll(tx, taxCode, d.taxCodes)
  await insertAll(tx, exchangeRate, d.rates)
  await insertAll(tx, fiscalPeriod, d.periods)
  await insertAll(tx, account, d.accounts)
  await insertAll(
    tx,
    budgetLine,
    d.budgetLines.map(({ perPeriod: _, ...line }) => line),
  )
  const balances = d.budgetLines.flatMap((l) =>
    l.perPeriod.map((budgeted, i) => ({ budgetLineId: l.id ?? '', period: i + 1, budgeted })),
  )
  await insertAll(tx, budgetBalance, balances)
  await insertAll(tx, supplier, d.suppliers)
  await insertAll(tx, category, d.categories)
  const items = d.items.map(({ prices: _, supplierName, ...i }) => ({
    ...i,
    searchText: searchTextOf({ ...i, supplier: supplierName, description: i.description ?? '' }),
  }))
  await insertAll(tx, item, items)
  const prices = d.items.flatMap((i) =>
    i.prices.map(({ from: fromQuantity, ...p }) => ({ itemId: i.id ?? '', fromQuantity, ...p })),
  )
  await insertAll(tx, itemPrice, prices)
  for (const k of d.kinds)
    await tx.insert(requestKind).values(k).onConflictDoUpdate({ target: requestKind.code, set: k })
  await insertAll(tx, job, d.jobs)
  await loadPolicy(tx, d.policy)
}

/**
 * Enters what is asked for with requests: own fields, and the rules for quotes, attachments, justifications and
 * readings.
 */
export async function loadRequestForm(
  tx: Tx,
  form: { readonly ownFields: readonly OwnField[]; readonly rules: readonly RequestRule[] },
): Promise<void> {
  for (const [position, f] of form.ownFields.entries()) {
    await tx.insert(ownField).values({
      id: f.id,
      position,
      name: f.name,
      help: f.help,
      appliesOn: f.on,
      type: f.type,
      required: f.required,
      kinds: [...f.kinds],
      departmentIds: [...f.departmentIds],
      categoryIds: [...f.categoryIds],
      choices: [...f.choices],
    })
  }
  if (form.rules.length > 0)
    await tx
      .insert(requestRule)
      .values(form.rules.map((r, position) => ({ id: r.id, position, name: r.name, conditions: r.when, asks: r.asks })))
}

function columnsOf(p: OrganisationDescription['people'][number]): typeof person.$inferInsert {
  const { alsoFor: _, roles: __, ...columns } = p
  return columns
}

async function loadPolicy(tx: Tx, policy: OrganisationDescription['policy']): Promise<void> {
  await tx.insert(approvalPolicy).values({
    id: policy.id,
    name: policy.name,
    number: 1,
    inForceAt: policy.inForceAt,
    ending: policy.ending,
    ownLimitDays: policy.ownLimitDays,
    byMail: policy.byMail ?? null,
    fallbackId: policy.fallbackId,
  })
  for (const [position, rule] of policy.rules.entries()) {
    const [added] = await tx
      .insert(approvalRule)
      .values({
        policyId: policy.id,
        position,
        name: rule.name,
        documents: rule.documents ?? 'requests',
        conditions: [...rule.conditions],
        sparesManagers: rule.sparesManagers ?? false,
      })
      .returning({ id: approvalRule.id })
    if (added === undefined) throw new Error('a rule was not written')
    const steps = rule.steps.map((s, at) => ({
      ruleId: added.id,
      position: at,
      rank: s.rank,
      who: s.who,
      mustCover: s.mustCover ?? false,
    }))
    if (steps.length > 0) await tx.insert(approvalStep).values(steps)
  }
}
