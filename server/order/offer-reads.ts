import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { PriceStep } from '#core/catalogue/price'
import type { OfferedItem } from '#core/order/offer'
import { termsIn } from '#core/order/order-terms'
import type { Standing } from '#core/supplier/record'
import type { ItemFacts, SupplierFacts } from '#core/supplier/warning'
import { isKin, ITEM } from '../catalogue/reads'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { category, item } from '../db/schema/catalogue'
import { supplier } from '../db/schema/supplier'

const i = named(item, 'i')
const s = named(supplier, 's')
const c = named(category, 'c')
const me = named(item, 'me')
const other = named(item, 'other')

/** An item that is the same thing as another, as its supplier offers it. */
export interface OfferedRow {
  /** Of what it is the same; of that itself its own id. */
  askedId: string
  id: string
  number: string
  name: string
  supplierId: string
  supplier: string
  supplierStanding: Standing
  supplierPart: string
  unit: string
  priceBase: DecimalText
  currency: string
  leadDays: number
  packSize: DecimalText | null
  prices: PriceStep[] | null
  facts: ItemFacts
  supplierFacts: SupplierFacts
  supplierCurrency: string
  freight: DecimalText | null
  freightFreeFrom: DecimalText | null
  minimumOrder: DecimalText | null
}

/** Items with the same of other suppliers; one that nobody else has is left out with all of its own. */
export function listOffered(tx: Tx, itemIds: readonly string[]): Promise<OfferedRow[]> {
  if (itemIds.length === 0) return Promise.resolve([])
  return read(
    tx,
    {
      askedId: sql<string>`${me.id}`,
      ...{ id: ITEM.id, number: ITEM.number, name: ITEM.name, supplierPart: ITEM.supplierPart },
      ...{ supplierId: ITEM.supplierId, supplier: ITEM.supplier, supplierStanding: sql<Standing>`${s.standing}` },
      ...{ unit: ITEM.unit, priceBase: ITEM.priceBase, currency: ITEM.currency, leadDays: ITEM.leadDays },
      ...{ packSize: ITEM.packSize, prices: ITEM.prices, facts: ITEM.facts, supplierFacts: ITEM.supplierFacts },
      ...{ supplierCurrency: s.currency, freight: s.freight, freightFreeFrom: s.freightFreeFrom },
      minimumOrder: s.minimumOrder,
    },
    sql`from ${me} join ${i} on ${isKin(i, me)} and (not ${i.retired} or ${i.id} = ${me.id})
      join ${s} on ${s.id} = ${i.supplierId} join ${c} on ${c.id} = ${i.categoryId}
    where ${me.id} = any(${sql.param([...itemIds])}::uuid[]) and exists (select from ${other}
      where ${isKin(other, me)} and ${other.id} <> ${me.id} and not ${other.retired})
    order by ${s.name}, ${i.number}`,
  )
}

/** What an offered item says, as the core asks for it, of a line in a currency. */
export function asOffered(row: OfferedRow, currency: string, perBase: ReadonlyMap<string, DecimalText>): OfferedItem {
  const warned = [row.facts, row.supplierFacts].find((f) => f.warningMode === 'stops' && f.warning !== null)
  const { freight, freightFreeFrom, minimumOrder } = row
  return {
    ...{ itemId: row.id, standing: row.supplierStanding, unit: row.unit, priceBase: row.priceBase },
    ...{ currency: row.currency, leadDays: row.leadDays, packSize: row.packSize, prices: row.prices ?? [] },
    stopped: warned?.warning ?? null,
    terms: termsIn({ currency: row.supplierCurrency, freight, freightFreeFrom, minimumOrder }, currency, perBase),
  }
}
