import { and, eq, gte, inArray, isNull, lte, or, sql, type SQL } from 'drizzle-orm'
import { addDays, type Day } from '#core/base/day'
import { searchTextOf } from '#core/catalogue/search-text'
import { stepsOf, writeSteps } from '#core/catalogue/typed-steps'
import type { Values } from '#core/lists/list'
import type { WarningMode } from '#core/supplier/warning'
import type { Tx } from '../db/client'
import { named, read, readOne } from '../db/read'
import { category, item, itemPrice } from '../db/schema/catalogue'
import { supplier } from '../db/schema/supplier'
import { inParts, orNull, textOf, together, yesNo, type EntryIds, type KeptEntry, type ListKeeper } from './keeper'

const i = named(item, 'i')
const c = named(category, 'c')
const s = named(supplier, 's')
const p = named(itemPrice, 'p')
const same = named(item, 'same')
const next = named(item, 'next')

/** What holds on a day. */
const holdsOn = (today: Day) =>
  sql`coalesce(${p.validFrom} <= ${today}, true) and coalesce(${p.validUntil} >= ${today}, true)`

/** Items of the catalogue with the prices that hold today; what they cost before and will cost stays as it is. */
export const items: ListKeeper = {
  read: (tx, today) => readItems(tx, today, sql``),
  find: (tx, { keys, others }, today) =>
    readItems(
      tx,
      today,
      sql`where lower(${i.number}) = any(${sql.param([...keys])}::text[])
        or lower(${i.name}) = any(${sql.param([...keys])}::text[])
        or lower(${s.number} || ' / ' || ${i.supplierPart}) = any(${sql.param([...others])}::text[])`,
    ),
  async count(tx) {
    const found = await readOne(
      tx,
      {
        count: sql<number>`count(*)::int`,
        retired: sql<number>`(count(*) filter (where ${i.retired}))::int`,
      },
      sql`from ${i}`,
    )
    return found ?? { count: 0, retired: 0 }
  },
  look: (tx, words, most, today) =>
    readItems(
      tx,
      today,
      sql`where ${words.length === 0 ? sql`true` : sql.join(words.map(holdsWord), sql` and `)}`,
      sql`limit ${most}`,
    ),
  page: (tx, after, most, today) =>
    readItems(
      tx,
      today,
      after === null
        ? sql``
        : sql`where (${i.name}, ${i.number}) > (${after.values.name ?? ''}, ${after.values.number ?? ''})`,
      sql`limit ${most}`,
    ),
  async insert(tx, entries, ids, today) {
    const suppliers = await readSupplierNames(tx)
    await inParts(entries, (some) =>
      tx.insert(item).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values, ids, suppliers) }))),
    )
    await nameOthers(tx, entries.filter(namesOthers), ids)
    await insertPrices(tx, entries, today, new Map())
  },
  async update(tx, entries, ids, today) {
    const suppliers = await readSupplierNames(tx)
    await together(
      entries.map((e) =>
        tx
          .update(item)
          .set(columnsOf(e.values, ids, suppliers))
          .where(eq(item.id, e.id)),
      ),
    )
    await nameOthers(tx, entries, ids)
    await changePrices(tx, entries, today)
  },
  async remove(tx, id) {
    await tx.delete(itemPrice).where(eq(itemPrice.itemId, id))
    await tx.delete(item).where(eq(item.id, id))
  },
}

/** That a word stands in what an item is found by, or in the name of its category. */
const holdsWord = (word: string) => {
  const pattern = `%${word.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`
  return sql`(${i.searchText} like ${pattern} or lower(${c.name}) like ${pattern})`
}

async function readItems(tx: Tx, today: Day, which: SQL, most = sql``): Promise<KeptEntry[]> {
  const rows = await read(
    tx,
    {
      id: i.id,
      number: i.number,
      name: i.name,
      description: i.description,
      category: c.name,
      supplier: s.number,
      supplierPart: i.supplierPart,
      unit: i.unit,
      steps: sql<{ from: string; unitPrice: string }[] | null>`(select json_agg(json_build_object(
        'from', trim_scale(${p.fromQuantity})::text, 'unitPrice', trim_scale(${p.unitPrice})::text))
        from ${p} where ${p.itemId} = ${i.id} and ${holdsOn(today)})`,
      per: i.priceBase,
      currency: i.currency,
      tax: i.taxCode,
      leadDays: i.leadDays,
      pack: i.packSize,
      agreed: i.hasAgreement,
      warning: i.warning,
      warns: i.warningMode,
      sameAs: sql<string | null>`${same.number}`,
      successor: sql<string | null>`${next.number}`,
      retired: i.retired,
    },
    sql`from ${i} join ${c} on ${c.id} = ${i.categoryId} join ${s} on ${s.id} = ${i.supplierId}
      left join ${same} on ${same.id} = ${i.sameAsId} left join ${next} on ${next.id} = ${i.successorId}
      ${which} order by ${i.name}, ${i.number} ${most}`,
  )
  return rows.map(({ id, steps, agreed, retired, ...r }) => ({
    id,
    values: {
      ...Object.fromEntries(Object.entries(r).map(([key, value]) => [key, textOf(value)])),
      prices: writeSteps(steps ?? []),
      agreed: yesNo(agreed === 1),
      retired: yesNo(retired),
    },
  }))
}

const columnsOf = (v: Values, ids: EntryIds, suppliers: ReadonlyMap<string, string>) => {
  const number = v.number ?? ''
  const name = v.name ?? ''
  const description = v.description ?? ''
  const supplierPart = v.supplierPart ?? ''
  return {
    number,
    name,
    description,
    categoryId: ids('categories', v.category ?? '') ?? '',
    supplierId: ids('suppliers', v.supplier ?? '') ?? '',
    supplierPart,
    unit: v.unit ?? 'H87',
    priceBase: v.per ?? '1',
    currency: v.currency ?? '',
    taxCode: v.tax ?? '',
    leadDays: Number(v.leadDays ?? '5'),
    packSize: orNull(v.pack),
    hasAgreement: v.agreed === 'yes' ? 1 : 0,
    warning: orNull(v.warning),
    warningMode: (v.warns ?? 'informs') as WarningMode,
    retired: v.retired === 'yes',
    searchText: searchTextOf({
      name,
      number,
      supplierPart,
      description,
      supplier: suppliers.get(v.supplier ?? '') ?? '',
    }),
  }
}

async function readSupplierNames(tx: Tx): Promise<Map<string, string>> {
  const rows = await read(tx, { number: s.number, name: s.name }, sql`from ${s}`)
  return new Map(rows.map((r) => [r.number, r.name]))
}

const namesOthers = (e: KeptEntry) => (e.values.sameAs ?? '') !== '' || (e.values.successor ?? '') !== ''

/** What an item is the same as, and what follows it: both may come later in the same file. */
const nameOthers = (tx: Tx, entries: readonly KeptEntry[], ids: EntryIds) =>
  together(
    entries.map((e) =>
      tx
        .update(item)
        .set({
          sameAsId: ids('items', e.values.sameAs ?? ''),
          successorId: ids('items', e.values.successor ?? ''),
        })
        .where(eq(item.id, e.id)),
    ),
  )

/** Prices from today on, up to the day before those that are known to follow. */
async function insertPrices(
  tx: Tx,
  entries: readonly KeptEntry[],
  today: Day,
  follows: ReadonlyMap<string, Day>,
): Promise<void> {
  const rows = entries.flatMap((e) => {
    const next = follows.get(e.id)
    return stepsOf(e.values.prices ?? '').map((step) => ({
      itemId: e.id,
      fromQuantity: step.from,
      unitPrice: step.unitPrice,
      validFrom: today,
      validUntil: next === undefined ? null : addDays(next, -1),
    }))
  })
  await inParts(rows, (some) => tx.insert(itemPrice).values(some))
}

/** Ends the prices that hold today where they are others from today on, and writes those. */
async function changePrices(tx: Tx, entries: readonly KeptEntry[], today: Day): Promise<void> {
  const ids = sql.param(entries.map((e) => e.id))
  const rows = await read(
    tx,
    {
      itemId: p.itemId,
      from: p.fromQuantity,
      unitPrice: p.unitPrice,
      holds: sql<boolean>`${holdsOn(today)}`,
      day: p.validFrom,
    },
    sql`from ${p} where ${p.itemId} = any(${ids}::uuid[]) and coalesce(${p.validUntil} >= ${today}, true)`,
  )
  const plain = new Map<string, { from: string; unitPrice: string }[]>()
  const follows = new Map<string, Day>()
  for (const r of rows) {
    if (r.holds) plain.set(r.itemId, [...(plain.get(r.itemId) ?? []), r])
    else if (r.day !== null && r.day < (follows.get(r.itemId) ?? '9999-12-31')) follows.set(r.itemId, r.day)
  }
  const other = entries.filter((e) => writeSteps(plain.get(e.id) ?? []) !== (e.values.prices ?? ''))
  const others = inArray(
    itemPrice.itemId,
    other.map((e) => e.id),
  )
  if (other.length === 0) return
  const open = or(isNull(itemPrice.validUntil), gte(itemPrice.validUntil, today))
  // What began today was never in force on an earlier day: it is written over.
  await tx.delete(itemPrice).where(and(others, eq(itemPrice.validFrom, today), open))
  await tx
    .update(itemPrice)
    .set({ validUntil: addDays(today, -1) })
    .where(and(others, or(isNull(itemPrice.validFrom), lte(itemPrice.validFrom, addDays(today, -1))), open))
  await insertPrices(tx, other, today, follows)
}
