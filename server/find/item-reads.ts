import { sql } from 'drizzle-orm'
import { ITEM, type ItemRow } from '../catalogue/reads'
import type { Tx } from '../db/client'
import { rows } from '../db/rows'
import { REQUISITIONS } from '../requisition/visible'

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
          tokens.map((w) => sql`i.search_text like ${`%${w.replace(/[\\%_]/g, '\\$&')}%`}`),
          sql` and `,
        )
  // Likeness is looked for only where too few items hold every word: it reads far more of the index.
  return rows<ItemRow>(
    tx,
    sql`
    with sure as (
      select i.id, (lower(i.number) = ${text} or lower(i.supplier_part) = ${text}) as exact, true as every_word,
        word_similarity(${text}, i.search_text) as alike
      from item i where ${every} order by 2 desc, 4 desc, i.name limit 60),
    alike as (
      select i.id, false as exact, false as every_word, word_similarity(${text}, i.search_text) as alike
      from item i where ${text} <> '' and (select count(*) from sure) < ${limit} and ${text} <% i.search_text
        and i.id not in (select id from sure)
      order by 4 desc, i.name limit 60),
    hit as (select * from sure union all select * from alike)
    select ${ITEM}, b.bought
    from hit join item i on i.id = hit.id join category c on c.id = i.category_id
      join supplier s on s.id = i.supplier_id
      cross join lateral (select count(*)::int as bought from requisition_line l
        join ${REQUISITIONS} r on r.id = l.requisition_id
        where l.item_id = i.id and r.department_id = ${departmentId} and r.number is not null) b
    order by hit.exact desc, hit.every_word desc, round(hit.alike::numeric, 1) desc, b.bought desc,
      similarity(lower(i.name), ${text}) desc, i.name limit ${limit}`,
  )
}
