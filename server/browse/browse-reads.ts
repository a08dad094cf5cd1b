import { sql, type SQL } from 'drizzle-orm'
import { MOST_COUNTED } from '#core/base/count'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { category, item, itemPrice } from '../db/schema/catalogue'
import { document } from '../db/schema/document'
import { itemAsked, requisition, requisitionLine } from '../db/schema/requisition'
import { department, person } from '../db/schema/people'
import { supplier } from '../db/schema/supplier'
import { IS_AGREED, ITEM, isKin, type ItemRow } from '../catalogue/reads'

const i = named(item, 'i')
const c = named(category, 'c')
const s = named(supplier, 's')
const p = named(itemPrice, 'p')
const a = named(itemAsked, 'a')
const l = named(requisitionLine, 'l')
const r = named(requisition, 'r')
const d = named(document, 'd')
const dep = named(department, 'dep')

/** What items are looked for by, besides their words. */
export interface ItemFilter {
  readonly category: string | null
  readonly supplier: string | null
  readonly agreed: boolean | null
  /** In how many business days it has to be here. */
  readonly leadDays: number | null
  /** Between which prices one of it costs, in the base currency; rates are units for one of that. */
  readonly from: DecimalText | null
  readonly to: DecimalText | null
  readonly today: Day
  readonly perBase: readonly (readonly [currency: string, rate: DecimalText])[]
  readonly boughtBy: { readonly personId: string } | { readonly departmentId: string } | null
}

/** Whether an item `i` fits a filter. */
export function fits(f: ItemFilter): SQL {
  const price = sql`(select ${p.unitPrice} / ${i.priceBase} / coalesce((select rate.per_one from
      unnest(${sql.param(f.perBase.map(([currency]) => currency))}::text[],
        ${sql.param(f.perBase.map(([, rate]) => rate))}::numeric[]) rate(coin, per_one)
      where rate.coin = ${i.currency}), 1)
    from ${p} where ${p.itemId} = ${i.id} and coalesce(${p.validFrom} <= ${f.today}, true)
      and coalesce(${p.validUntil} >= ${f.today}, true) order by ${p.fromQuantity} limit 1)`
  const all = [
    f.category === null
      ? null
      : sql`${i.categoryId} in (with recursive part as (select ${c.id} as found from ${c} where ${c.id} = ${f.category}
          union select ${c.id} from ${c} join part on ${c.parentId} = part.found) select found from part)`,
    f.supplier === null ? null : sql`${i.supplierId} = ${f.supplier}`,
    f.agreed === null ? null : sql`${IS_AGREED} = ${f.agreed}`,
    f.leadDays === null ? null : sql`${i.leadDays} <= ${f.leadDays}`,
    f.from === null ? null : sql`${price} >= ${f.from}`,
    f.to === null ? null : sql`${price} <= ${f.to}`,
    f.boughtBy === null
      ? null
      : 'departmentId' in f.boughtBy
        ? sql`exists (select from ${a} where ${a.itemId} = ${i.id} and ${a.departmentId} = ${f.boughtBy.departmentId}
            and ${a.lines} > 0)`
        : sql`exists (select from ${l} join ${d} on ${d.id} = ${l.requisitionId}
            where ${l.itemId} = ${i.id} and ${d.ownerId} = ${f.boughtBy.personId} and ${d.sentAt} is not null)`,
  ]
  const asked = all.filter((x) => x !== null)
  return asked.length === 0 ? sql`true` : sql.join(asked, sql` and `)
}

/** Items by name, those after one of a page before. */
export function listItems(
  tx: Tx,
  filter: SQL,
  after: { readonly name: string; readonly id: string } | null,
  departmentId: string | null,
  limit: number,
): Promise<ItemRow[]> {
  const beyond = after === null ? sql`true` : sql`(${i.name}, ${i.id}) > (${after.name}, ${after.id}::uuid)`
  return read(
    tx,
    { ...ITEM, bought: sql<number>`coalesce(${a.lines}, 0)` },
    sql`from ${i} join ${c} on ${c.id} = ${i.categoryId} join ${s} on ${s.id} = ${i.supplierId}
      left join ${a} on ${a.itemId} = ${i.id} and ${a.departmentId} = ${departmentId}
      where not ${i.retired} and ${filter} and ${beyond} order by ${i.name}, ${i.id} limit ${limit}`,
  )
}

/** The department that somebody is of. */
export async function findHome(tx: Tx, personId: string): Promise<string | null> {
  const me = named(person, 'me')
  return (await readOne(tx, { id: me.departmentId }, sql`from ${me} where ${me.id} = ${personId}`))?.id ?? null
}

/** How many items fit, counted to what anybody reads, and one more. */
export async function countItems(tx: Tx, filter: SQL): Promise<number> {
  const found = await readOne(
    tx,
    { count: sql<number>`count(*)::int` },
    sql`from (select from ${i} where not ${i.retired} and ${filter} limit ${MOST_COUNTED + 1}) found`,
  )
  return found?.count ?? 0
}

/** Categories in use with how many items lie in each by itself, and suppliers that have items. */
export async function listChoices(tx: Tx) {
  const count = (of: SQL) => sql<number>`(select count(*)::int from ${i} where not ${i.retired} and ${of})`
  const categories = await read(
    tx,
    { id: c.id, name: c.name, parentId: c.parentId, items: count(sql`${i.categoryId} = ${c.id}`) },
    sql`from ${c} where not ${c.retired} order by ${c.name}`,
  )
  const suppliers = await read(
    tx,
    { id: s.id, name: s.name, items: count(sql`${i.supplierId} = ${s.id}`) },
    sql`from ${s} where ${s.standing} = 'active' order by ${s.name}`,
  )
  return { categories, suppliers: suppliers.filter((x) => x.items > 0) }
}

/** The ids of what is the same thing as an item, itself not among them, and what follows it. */
export async function findKin(tx: Tx, id: string) {
  const me = named(item, 'me')
  const next = named(item, 'next')
  const found = await readOne(
    tx,
    {
      successor: sql<{ id: string; name: string; number: string } | null>`(select json_build_object('id', ${next.id},
        'name', ${next.name}, 'number', ${next.number}) from ${next} where ${next.id} = ${me.successorId})`,
      others: sql<string[]>`array(select ${i.id} from ${i} where not ${i.retired} and ${i.id} <> ${me.id}
        and ${isKin(i, me)})`,
    },
    sql`from ${me} where ${me.id} = ${id}`,
  )
  return found ?? { successor: null, others: [] }
}

/** Departments that asked for an item, those that asked most often first. */
export function listAskers(tx: Tx, itemId: string, most: number): Promise<{ department: string; lines: number }[]> {
  return read(
    tx,
    { department: dep.name, lines: a.lines },
    sql`from ${a} join ${dep} on ${dep.id} = ${a.departmentId} where ${a.itemId} = ${itemId} and ${a.lines} > 0
      order by ${a.lines} desc, ${dep.name} limit ${most}`,
  )
}

/** Requests looked at for what stands with an item: the newest. */
const LOOKED_AT = 300

/** What stood most often on one request with an item, at least twice. */
export function listTogether(tx: Tx, itemId: string, most: number) {
  const other = named(requisitionLine, 'other')
  return read(
    tx,
    { id: i.id, name: i.name, number: i.number, times: sql<number>`count(distinct ${other.requisitionId})::int` },
    sql`from (select ${l.requisitionId} as request from ${l} join ${r} on ${r.id} = ${l.requisitionId}
        join ${d} on ${d.id} = ${r.id} where ${l.itemId} = ${itemId} and ${d.sentAt} is not null
        order by ${d.sentAt} desc limit ${LOOKED_AT}) held
      join ${other} on ${other.requisitionId} = held.request and ${other.itemId} <> ${itemId}
      join ${i} on ${i.id} = ${other.itemId} and not ${i.retired}
      group by ${i.id}, ${i.name}, ${i.number} having count(distinct ${other.requisitionId}) > 1
      order by 4 desc, ${i.name} limit ${most}`,
  )
}
