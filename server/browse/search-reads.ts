import { sql, type SQL } from 'drizzle-orm'
import { lettersOf, wordsOf } from '#core/catalogue/search-text'
import { ITEM, type ItemRow } from '../catalogue/reads'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { category, item, knownWord } from '../db/schema/catalogue'
import { supplier } from '../db/schema/supplier'
import { itemAsked } from '../db/schema/requisition'

const i = named(item, 'i')
const c = named(category, 'c')
const s = named(supplier, 's')
const a = named(itemAsked, 'a')
const k = named(knownWord, 'k')

/**
 * Catalogue items by words, forgiving typing errors: a part number in front, then items in which every word stands,
 * in whatever order; where these are too few, items with words that come close, and where there are none of either,
 * items with some of the words. What the department buys often comes first among equals.
 */
export async function searchItems(
  tx: Tx,
  typed: string,
  departmentId: string | null,
  limit: number,
  filter: SQL = sql`true`,
): Promise<ItemRow[]> {
  const words = wordsOf(typed)
  const text = words.join(' ')
  const within = (where: SQL) => sql`(${where}) and ${filter}`
  const all = within(words.length === 0 ? sql`true` : sql.join(words.map(holds), sql` and `))
  const exact = sql`(lower(${i.number}) = ${text} or lower(${i.supplierPart}) = ${text})::int`
  const sure = await readHits(
    tx,
    all,
    sql`${exact} + word_similarity(${text}, ${i.searchText})`,
    text,
    departmentId,
    limit,
  )
  if (sure.length >= limit || words.length === 0) return sure
  const close = await listCloseWords(tx, words)
  const likeness = sql.join(
    words.map((w, n) => sql`greatest(${holds(w)}::int, ${sql.join(likenesses(close[n] ?? []), sql`, `)})`),
    sql` + `,
  )
  const each = words.map(
    (w, n) => sql`(${sql.join([w, ...(close[n] ?? []).map((c) => c.word)].map(holds), sql` or `)})`,
  )
  const more = async (where: SQL) => {
    const found = await readHits(tx, within(where), likeness, text, departmentId, limit)
    const known = new Set(sure.map((x) => x.id))
    return [...sure, ...found.filter((x) => !known.has(x.id))].slice(0, limit)
  }
  const alike = close.some((c) => c.length > 0) ? await more(sql.join(each, sql` and `)) : sure
  return alike.length > 0 || words.length === 1 ? alike : more(sql.join(each, sql` or `))
}

const holds = (word: string) => sql`(${i.searchText} like ${`%${word.replace(/[\\%_]/g, '\\$&')}%`})`

const likenesses = (close: readonly CloseWord[]) => [
  sql`0`,
  ...close.map((c) => sql`${holds(c.word)}::int * ${c.likeness}::real`),
]

/** By how many lines the department asked for an item already. */
const bought = sql<number>`coalesce(${a.lines}, 0)`

/** Items of which something holds, those with the most of `score` first: so many are weighed by what was bought. */
const MOST_WEIGHED = 60

function readHits(
  tx: Tx,
  where: SQL,
  score: SQL,
  text: string,
  departmentId: string | null,
  limit: number,
): Promise<ItemRow[]> {
  return read(
    tx,
    { ...ITEM, bought },
    sql`from hit join ${i} on ${i.id} = hit.found join ${c} on ${c.id} = ${i.categoryId}
      join ${s} on ${s.id} = ${i.supplierId}
      left join ${a} on ${a.itemId} = ${i.id} and ${a.departmentId} = ${departmentId}
    order by round(hit.score::numeric, 1) desc, ${bought} desc, similarity(lower(${i.name}), ${text}) desc,
      ${i.name} limit ${limit}`,
    {
      before: sql`with hit as (select ${i.id} as found, ${score} as score from ${i}
        where not ${i.retired} and (${where}) order by 2 desc, ${i.name} limit ${MOST_WEIGHED})`,
    },
  )
}

interface CloseWord {
  readonly word: string
  readonly likeness: number
}

/** Words of the catalogue close to each of those typed, the closest first, also where letters changed places. */
async function listCloseWords(tx: Tx, words: readonly string[]): Promise<CloseWord[][]> {
  const found = await read(
    tx,
    { at: sql<number>`asked.n::int`, word: sql<string>`close.found`, likeness: sql<number>`close.likeness` },
    sql`from unnest(${sql.param([...words])}::text[], ${sql.param(words.map(lettersOf))}::text[])
        with ordinality asked(typed, sorted, n)
      cross join lateral (select ${k.word} as found, (case when ${k.letters} = asked.sorted then 0.9
          else similarity(${k.word}, asked.typed) end)::real as likeness from ${k}
        where (${k.word} % asked.typed or ${k.letters} = asked.sorted) and ${k.word} <> asked.typed
        order by 2 desc, 1 limit 4) close
    order by asked.n, close.likeness desc`,
  )
  return words.map((_, n) => found.filter((f) => f.at === n + 1))
}
