import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { PriceStep } from '#core/catalogue/price'
import type { ItemFacts, SupplierFacts } from '#core/supplier/warning'
import { SUPPLIER_FACTS } from '../supplier/reads'
import type { Tx } from '../db/client'
import { rows } from '../db/rows'

export interface ItemRow {
  id: string
  number: string
  name: string
  description: string
  categoryId: string
  category: string
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

/** An item `i` with its category `c`, its supplier `s` and all its price steps. */
/** What is read of an item `i`, with its supplier `s` and category `c`. */
export const ITEM = sql`i.id, i.number, i.name, i.description, i.category_id as "categoryId", c.name as category,
  c.account_code as "accountCode",
  i.supplier_id as "supplierId", s.name as supplier, s.standing as "supplierStanding",
    i.supplier_part as "supplierPart", i.unit,
  i.price_base as "priceBase", i.currency, i.tax_code as "taxCode", i.lead_days as "leadDays",
    i.has_agreement = 1 as "hasAgreement", i.pack_size as "packSize",
  json_build_object('id', i.id, 'agreed', i.has_agreement = 1, 'leadDays', i.lead_days, 'warning', i.warning,
    'warningMode', i.warning_mode) as facts, ${SUPPLIER_FACTS} as "supplierFacts",
  (select json_agg(json_build_object('from', trim_scale(p.from_quantity)::text, 'unitPrice',
    trim_scale(p.unit_price)::text,
    'validFrom', p.valid_from, 'validUntil', p.valid_until) order by p.from_quantity) from item_price p
      where p.item_id = i.id) as prices`

/** Every category, by its name. */
export function listCategories(tx: Tx): Promise<{ id: string; name: string }[]> {
  return rows(tx, sql`select c.id, c.name from category c order by c.name, c.id`)
}

/** Items by id. */
export function findItems(tx: Tx, ids: readonly string[]): Promise<ItemRow[]> {
  if (ids.length === 0) return Promise.resolve([])
  return rows<ItemRow>(
    tx,
    sql`
    select ${ITEM}, 0 as bought from item i join category c on c.id = i.category_id
      join supplier s on s.id = i.supplier_id where i.id = any(${sql.param([...ids])}::uuid[])`,
  )
}

/** The price steps of items, those of one item from the lowest quantity on. */
export async function listPriceSteps(tx: Tx, itemIds: readonly string[]): Promise<Map<string, PriceStep[]>> {
  if (itemIds.length === 0) return new Map()
  const found = await rows<PriceStep & { itemId: string }>(
    tx,
    sql`
    select item_id as "itemId", from_quantity as "from", unit_price as "unitPrice", valid_from::text as "validFrom",
      valid_until::text as "validUntil"
    from item_price where item_id = any(${sql.param([...itemIds])}::uuid[]) order by item_id, from_quantity`,
  )
  const steps = new Map<string, PriceStep[]>()
  for (const { itemId, ...step } of found) steps.set(itemId, [...(steps.get(itemId) ?? []), step])
  return steps
}

/**
 * Items by exactly their own or their supplier's number, whatever its case; one part number may be several suppliers'.
 */
export function findItemsByNumber(tx: Tx, numbers: readonly string[]): Promise<ItemRow[]> {
  return rows<ItemRow>(
    tx,
    sql`
    select ${ITEM}, 0 as bought from item i join category c on c.id = i.category_id
      join supplier s on s.id = i.supplier_id
    where lower(i.number) = any(${sql.param(numbers.map((n) => n.toLowerCase()))}::text[])
      or lower(i.supplier_part) = any(${sql.param(numbers.map((n) => n.toLowerCase()))}::text[])
    order by i.number`,
  )
}
