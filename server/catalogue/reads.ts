import { sql, type SQL } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Drawing } from '#core/catalogue/drawing'
import type { PriceStep } from '#core/catalogue/price'
import type { ItemFacts, SupplierFacts } from '#core/supplier/warning'
import { SUPPLIER_FACTS } from '../supplier/reads'
import type { Tx } from '../db/client'
import { named, read, type Named } from '../db/read'
import { agreement, agreementItem } from '../db/schema/agreement'
import { category, item, itemPrice } from '../db/schema/catalogue'
import { supplier } from '../db/schema/supplier'

const p = named(itemPrice, 'p')
const c = named(category, 'c')
const i = named(item, 'i')
const s = named(supplier, 's')
const next = named(item, 'next')
const a = named(agreement, 'a')
const x = named(agreementItem, 'x')

export interface ItemRow {
  id: string
  number: string
  name: string
  description: string
  categoryId: string
  category: string
  drawing: Drawing
  accountCode: string | null
  supplierId: string
  supplier: string
  supplierStanding: string
  supplierPart: string
  unit: string
  priceBase: DecimalText
  currency: string
  taxCode: string
  leadDays: number
  hasAgreement: boolean
  packSize: DecimalText | null
  prices: PriceStep[]
  bought: number
  facts: ItemFacts
  supplierFacts: SupplierFacts
}

/** That an item `i` is marked as one under an agreement, or stands in one that is in force. */
export const IS_AGREED = sql`(${i.hasAgreement} = 1 or ${i.id} in (select ${x.itemId} from ${x}
  join ${a} on ${a.id} = ${x.agreementId} where ${a.isInForce}))`

/** That an item is the same thing as another to whoever needs it, or that one itself. */
export function isKin(of: Pick<Named<typeof item>, 'id' | 'sameAsId'>, other: typeof of): SQL {
  const first = sql`coalesce(${other.sameAsId}, ${other.id})`
  return sql`((${of.id} = ${first} and ${of.sameAsId} is null) or ${of.sameAsId} = ${first})`
}

/** What a verdict has to know of an item `i`; what stands in an agreement is looked at by itself. */
export const ITEM_FACTS = sql<ItemFacts>`json_build_object('id', ${i.id}, 'agreed', ${i.hasAgreement} = 1,
  'leadDays', ${i.leadDays}, 'warning', ${i.warning}, 'warningMode', ${i.warningMode}, 'retired', ${i.retired},
  'successor', (select ${next.name} || ' (' || ${next.number} || ')' from ${next}
    where ${next.id} = ${i.successorId}))`

/** What is read of an item `i`, with its supplier `s` and category `c`. */
export const ITEM = {
  id: i.id,
  number: i.number,
  name: i.name,
  description: i.description,
  categoryId: i.categoryId,
  category: c.name,
  drawing: c.drawing,
  accountCode: c.accountCode,
  supplierId: i.supplierId,
  supplier: s.name,
  supplierStanding: s.standing,
  supplierPart: i.supplierPart,
  unit: i.unit,
  priceBase: i.priceBase,
  currency: i.currency,
  taxCode: i.taxCode,
  leadDays: i.leadDays,
  hasAgreement: sql<boolean>`${IS_AGREED}`,
  packSize: i.packSize,
  facts: ITEM_FACTS,
  supplierFacts: SUPPLIER_FACTS,
  prices: sql<PriceStep[]>`(select json_agg(json_build_object('from', trim_scale(${p.fromQuantity})::text, 'unitPrice',
    trim_scale(${p.unitPrice})::text,
    'validFrom', ${p.validFrom}, 'validUntil', ${p.validUntil}) order by ${p.fromQuantity}) from ${p}
      where ${p.itemId} = ${i.id})`,
}

/** Every category, by its name. */
export function listCategories(tx: Tx): Promise<{ id: string; name: string; parentId: string | null }[]> {
  return read(tx, { id: c.id, name: c.name, parentId: c.parentId }, sql`from ${c} order by ${c.name}, ${c.id}`)
}

/** Items by id. */
export function findItems(tx: Tx, ids: readonly string[]): Promise<ItemRow[]> {
  if (ids.length === 0) return Promise.resolve([])
  return read(
    tx,
    { ...ITEM, bought: sql<ItemRow['bought']>`0` },
    sql`from ${i} join ${c} on ${c.id} = ${i.categoryId}
      join ${s} on ${s.id} = ${i.supplierId} where ${i.id} = any(${sql.param([...ids])}::uuid[])`,
  )
}

/** The price steps of items, those of one item from the lowest quantity on. */
export async function listPriceSteps(tx: Tx, itemIds: readonly string[]): Promise<Map<string, PriceStep[]>> {
  if (itemIds.length === 0) return new Map()
  const found = await read(
    tx,
    {
      itemId: p.itemId,
      from: p.fromQuantity,
      unitPrice: p.unitPrice,
      validFrom: p.validFrom,
      validUntil: p.validUntil,
    },
    sql`from ${p} where ${p.itemId} = any(${sql.param([...itemIds])}::uuid[])
    order by ${p.itemId}, ${p.fromQuantity}`,
  )
  const steps = new Map<string, PriceStep[]>()
  for (const { itemId, ...step } of found) steps.set(itemId, [...(steps.get(itemId) ?? []), step])
  return steps
}

/**
 * Items by exactly their own or their supplier's number, whatever its case; one part number may be several suppliers'.
 */
export function findItemsByNumber(tx: Tx, numbers: readonly string[]): Promise<ItemRow[]> {
  return read(
    tx,
    { ...ITEM, bought: sql<ItemRow['bought']>`0` },
    sql`from ${i} join ${c} on ${c.id} = ${i.categoryId}
      join ${s} on ${s.id} = ${i.supplierId}
    where lower(${i.number}) = any(${sql.param(numbers.map((n) => n.toLowerCase()))}::text[])
      or lower(${i.supplierPart}) = any(${sql.param(numbers.map((n) => n.toLowerCase()))}::text[])
    order by ${i.number}`,
  )
}
