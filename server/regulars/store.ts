import { and, eq, sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { Draft } from '#core/requisition/draft'
import type { Regular } from '#core/requisition/line-source'
import type { Rhythm } from '#core/requisition/rhythm'
import { regular, regularList, template } from '../db/schema/regulars'
import type { Tx } from '../db/client'

export async function insertRegularList(
  tx: Tx,
  l: { id: string; name: string; ownerId: string | null; departmentId: string | null },
  entries: readonly Regular[],
): Promise<void> {
  await tx.insert(regularList).values(l)
  await insertEntries(tx, l.id, entries)
}

export async function updateRegularList(tx: Tx, id: string, name: string, entries: readonly Regular[]): Promise<void> {
  await tx
    .update(regularList)
    .set({ name, version: sql`${regularList.version} + 1` })
    .where(eq(regularList.id, id))
  await tx.delete(regular).where(eq(regular.listId, id))
  await insertEntries(tx, id, entries)
}

async function insertEntries(tx: Tx, listId: string, entries: readonly Regular[]): Promise<void> {
  if (entries.length === 0) return
  await tx.insert(regular).values(
    entries.map((e, position) => ({
      listId,
      position,
      itemId: e.itemId,
      description: e.description,
      quantity: e.quantity,
      unit: e.unit,
      unitPrice: e.unitPrice,
      priceBase: e.priceBase,
      currency: e.currency,
      taxCode: e.taxCode,
      supplierId: e.supplierId,
      supplierPart: e.supplierPart,
    })),
  )
}

export async function deleteRegularList(tx: Tx, id: string): Promise<void> {
  await tx.delete(regularList).where(eq(regularList.id, id))
}

/** How a template is raised again; null is only when somebody begins from it. */
export interface TemplateRhythm {
  readonly repeats: Rhythm
  readonly startsOn: Day
  readonly nextOn: Day
  readonly sendsItself: boolean
  readonly neededAfter: number
}
const columnsOf = (r: TemplateRhythm | null) =>
  r === null ? { repeats: null, startsOn: null, nextOn: null, sendsItself: false } : r

export async function insertTemplate(
  tx: Tx,
  t: { id: string; name: string; ownerId: string; departmentId: string | null; draft: Draft; now: Date },
  rhythm: TemplateRhythm | null,
): Promise<void> {
  await tx.insert(template).values({
    id: t.id,
    name: t.name,
    ownerId: t.ownerId,
    departmentId: t.departmentId,
    draft: t.draft,
    createdAt: t.now,
    ...columnsOf(rhythm),
  })
}

export async function updateTemplate(
  tx: Tx,
  id: string,
  t: { name: string; departmentId: string | null },
  rhythm: TemplateRhythm | null,
): Promise<void> {
  await tx
    .update(template)
    .set({ ...t, ...columnsOf(rhythm), version: sql`${template.version} + 1` })
    .where(eq(template.id, id))
}

/** Sets when a template is raised next; null ends its rhythm. */
export async function setNext(tx: Tx, id: string, nextOn: Day | null): Promise<void> {
  await tx
    .update(template)
    .set(nextOn === null ? { repeats: null, startsOn: null, nextOn: null, sendsItself: false } : { nextOn })
    .where(and(eq(template.id, id), sql`${template.nextOn} is not null`))
}

export async function deleteTemplate(tx: Tx, id: string): Promise<void> {
  await tx.delete(template).where(eq(template.id, id))
}
