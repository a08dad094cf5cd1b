import { notInArray, sql } from 'drizzle-orm'
import type { RequestForm } from '#core/requisition/form'
import { ownField, requestKind, requestRule } from '../db/schema/request-form'
import type { Tx } from '../db/client'

/**
 * Writes kinds, own fields and rules as they stand from now on. All are retired first, so that two that
 * change their names for each other's never stand beside each other; those that stay come back.
 */
export async function writeForm(tx: Tx, form: RequestForm): Promise<void> {
  await tx.update(requestKind).set({ retired: true })
  for (const [position, k] of form.kinds.entries()) {
    const row = {
      code: k.code,
      name: k.name.trim(),
      help: k.help.trim(),
      series: k.series,
      raisesParts: k.raisesParts === true,
      position,
      retired: false,
    }
    await tx.insert(requestKind).values(row).onConflictDoUpdate({ target: requestKind.code, set: row })
  }
  await tx.update(ownField).set({ retired: true })
  for (const [position, f] of form.ownFields.entries()) {
    const row = {
      id: f.id,
      position,
      name: f.name.trim(),
      help: f.help.trim(),
      appliesOn: f.on,
      type: f.type,
      required: f.required,
      retired: false,
      kinds: [...f.kinds],
      departmentIds: [...f.departmentIds],
      categoryIds: [...f.categoryIds],
      choices: f.type === 'choice' ? f.choices.map((c) => c.trim()).filter((c) => c !== '') : [],
    }
    await tx.insert(ownField).values(row).onConflictDoUpdate({ target: ownField.id, set: row })
  }
  await tx.delete(requestRule).where(
    form.rules.length === 0
      ? sql`true`
      : notInArray(
          requestRule.id,
          form.rules.map((r) => r.id),
        ),
  )
  for (const [position, r] of form.rules.entries()) {
    const row = { id: r.id, position, name: r.name.trim(), conditions: r.when, asks: r.asks }
    await tx.insert(requestRule).values(row).onConflictDoUpdate({ target: requestRule.id, set: row })
  }
}
