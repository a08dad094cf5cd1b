import { and, eq, isNull, sql } from 'drizzle-orm'
import { writtenRule, type PolicyForm } from '#core/approval/policy-form'
import type { Tx } from '../db/client'
import { approvalPolicy, approvalRule, approvalStep, policyDraft } from '../db/schema/approval'

export type DraftRow = typeof policyDraft.$inferSelect

/** The draft, with the right to change it until the transaction ends; null where nothing was ever drafted. */
export async function lockDraft(tx: Tx): Promise<DraftRow | null> {
  const [row] = await tx.select().from(policyDraft).for('update')
  return row ?? null
}

/** Begins the first draft there is; false where somebody began it at the same moment. */
export async function insertDraft(tx: Tx, d: Omit<typeof policyDraft.$inferInsert, 'id'>): Promise<boolean> {
  const added = await tx.insert(policyDraft).values(d).onConflictDoNothing().returning({ id: policyDraft.id })
  return added.length > 0
}

/** Changes the draft, its row locked, and counts its version on. */
export async function updateDraft(tx: Tx, change: Partial<typeof policyDraft.$inferInsert>): Promise<void> {
  await tx
    .update(policyDraft)
    .set({ ...change, version: sql`${policyDraft.version} + 1` })
    .where(eq(policyDraft.id, 1))
}

/** Writes a version of the policy with its rules and steps; returns its id. */
export async function insertVersion(
  tx: Tx,
  form: PolicyForm,
  v: Omit<typeof approvalPolicy.$inferInsert, keyof PolicyForm>,
): Promise<string> {
  const { rules, ...head } = form
  const [added] = await tx
    .insert(approvalPolicy)
    .values({ ...head, ...v })
    .returning({ id: approvalPolicy.id })
  if (added === undefined) throw new Error('a version of the policy was not written')
  if (rules.length === 0) return added.id
  const written = await tx
    .insert(approvalRule)
    .values(
      rules.map((r, position) => ({
        policyId: added.id,
        lineage: r.id,
        position,
        name: r.name,
        documents: r.documents ?? 'requests',
        conditions: [...r.conditions],
        sparesManagers: r.sparesManagers,
      })),
    )
    .returning({ id: approvalRule.id, lineage: approvalRule.lineage })
  const ids = new Map(written.map((r) => [r.lineage, r.id]))
  const steps = rules
    .map(writtenRule)
    .flatMap((r) => r.steps.map((s, position) => ({ ruleId: ids.get(r.id) ?? '', position, ...s })))
  if (steps.length > 0) await tx.insert(approvalStep).values(steps)
  return added.id
}

/** Calls a version off that has not come into force; false where it has, or was called off already. */
export async function setCalledOff(tx: Tx, number: number, byId: string, now: Date): Promise<boolean> {
  const done = await tx
    .update(approvalPolicy)
    .set({ calledOffById: byId, calledOffAt: now })
    .where(
      and(
        eq(approvalPolicy.number, number),
        isNull(approvalPolicy.calledOffAt),
        sql`${approvalPolicy.inForceAt} > ${now.toISOString()}`,
      ),
    )
    .returning({ id: approvalPolicy.id })
  return done.length > 0
}
