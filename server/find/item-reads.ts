import { sql } from 'drizzle-orm'
import { ITEM, type ItemRow } from '../catalogue/reads'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { category, item } from '../db/schema/catalogue'
import { supplier } from '../db/schema/supplier'
import { requisitionLine } from '../db/schema/requisition'
import { requisitions } from '../requisition/visible'

const i = named(item, 'i')
const c = named(category, 'c')
const s = named(supplier, 's')
const l = named(requisitionLine, 'l')
const r = requisitions('r')

/**
 * Catalogue items by words, forgiving typing errors: a part number in front, then items in which every
 * word stands, then what is alike; what the department buys often comes first among equals.
 */
export function searchItems(tx: Tx, words: string, departmentId: string | null, limit: number): Promise<ItemRow[]> {
  const text = words.toLowerCase().trim()
  const tokens = text
    .split(/\s+/)
    .filter((w) => w !== '')
    .slice(0, 8)
  const every =
    tokens.length === 0
      ? sql`true`
      : sql.join(
          tokens.map((w) => sql`${i.searchText} like ${`%${w.replace(/[\\%_]/g, '\\$&')}%`}`),
          sql` and `,
        )
  // Likeness is looked for only where too few items hold every word: it reads far more of the index.
  return read(
    tx,
    { ...ITEM, bought: sql<number>`b.bought` },
    sql`from hit join ${i} on ${i.id} = hit.found join ${c} on ${c.id} = ${i.categoryId}
      join ${s} on ${s.id} = ${i.supplierId}
      cross join lateral (select count(*)::int as bought from ${l}
        join ${r} on ${r.id} = ${l.requisitionId}
        where ${l.itemId} = ${i.id} and ${r.departmentId} = ${departmentId} and ${r.number} is not null) b
    order by hit.exact desc, hit.every_word desc, round(hit.alike::numeric, 1) desc, b.bought desc,
      similarity(lower(${i.name}), ${text}) desc, ${i.name} limit ${limit}`,
    {
      before: sql`with sure as (
      select ${i.id} as found, (lower(${i.number}) = ${text} or lower(${i.supplierPart}) = ${text}) as exact,
      true as every_word,
        word_similarity(${text}, ${i.searchText}) as alike
      from ${i} where ${every} order by 2 desc, 4 desc, ${i.name} limit 60),
    alike as (
      select ${i.id} as found, false as exact, false as every_word, word_similarity(${text}, ${i.searchText}) as alike
      from ${i} where ${text} <> '' and (select count(*) from sure) < ${limit} and ${text} <% ${i.searchText}
        and ${i.id} not in (select found from sure)
      order by 4 desc, ${i.name} limit 60),
    hit as (select * from sure union all select * from alike)`,
    },
  )
}
