import pg from 'pg'
import { addDays } from '#core/base/day'
import { personId } from '../../demo/world/people'
import { browseCatalogue } from '../../server/browse/browse-catalogue'
import { openDatabase, PLANNING, type Db } from '../../server/db/client'
import type { Actor } from '../../server/people/actor'
import { findActor } from '../../server/people/actor-reads'
import { searchItems } from '../../server/browse/search-reads'
import type { Cluster } from '../setup/cluster'
import { withClient } from './bulk-load'
import { recording } from './capture'

const WHAT = [
  'seal',
  'valve',
  'sleeve',
  'lamp',
  'hose',
  'clamp',
  'filter',
  'probe',
  'rope',
  'shackle',
  'bearing',
  'gasket',
  'coupling',
  'sheet',
  'reagent',
  'glove',
  'net',
  'anode',
  'cable',
  'switch',
]
const OF = [
  'bronze',
  'stainless',
  'quartz',
  'rubber',
  'acrylic',
  'nylon',
  'titanium',
  'ceramic',
  'silicone',
  'cotton',
  'zinc',
  'copper',
  'glass',
  'steel',
  'brass',
  'carbon',
  'marine',
  'potable',
  'coarse',
  'fine',
]
const FOR = ['pump', 'tank', 'winch', 'skimmer', 'boat', 'laboratory', 'workshop', 'pool', 'store', 'yard']

/**
 * Fills the catalogue with so many items of three words, a size and a part number, by plain SQL: for measuring the
 * search alone.
 */
export const bulkItems = (url: string, count: number): Promise<void> =>
  withClient(url, (client) => loadItems(client, count))

async function loadItems(client: pg.Client, count: number): Promise<void> {
  await client.query(
    `
    insert into item (id, number, name, category_id, supplier_id, supplier_part, unit, currency, tax_code, lead_days,
      search_text)
    select ('00000000-0000-4000-a000-' || lpad(n::text, 12, '0'))::uuid, 'B-' || n, x.name, c.id, s.id, 'BX-' || n,
      'H87', 'EUR', 'S', 5, lower(x.name || ' B-' || n || ' BX-' || n || ' ' || s.name)
    from generate_series(1, ${count}) n
      cross join lateral (
        select ($1::text[])[1 + n % 20] || ', ' || ($2::text[])[1 + n / 20 % 20] || ', '
          || ($3::text[])[1 + n / 400 % 10] || ' ' || (n % 997) || ' mm' as name) x
      cross join lateral (select id from category order by name offset n % 15 limit 1) c
      cross join lateral (select id, name from supplier where currency = 'EUR' and standing = 'active'
        order by number offset n % 10 limit 1) s`,
    [WHAT, OF, FOR],
  )
  await client.query(
    `insert into item_price (item_id, from_quantity, unit_price) select ('00000000-0000-4000-a000-' || ` +
      `lpad(n::text, 12, '0'))::uuid, 1, 1 + n % 500 from generate_series(1, ${count}) n`,
  )
  await client.query('vacuum analyze')
}

/** What people type: words, a part of a word, a misspelt word, a part number. */
const typed = (i: number) =>
  [
    `${OF[i % 20] ?? ''} ${WHAT[(i * 7) % 20] ?? ''}`,
    `${(WHAT[(i * 3) % 20] ?? '').slice(0, 4)} ${FOR[i % 10] ?? ''}`,
    `${WHAT[i % 20] ?? ''} ${(i * 13) % 997} mm`,
    `bx-${((i * 1237) % 90_000) + 1}`,
    `${(OF[i % 20] ?? '').replace(/^(..)./, '$1')} ${WHAT[(i * 11) % 20] ?? ''}`,
  ][i % 5] ?? ''

const at = (times: readonly number[], share: number) =>
  [...times].sort((a, b) => a - b)[Math.floor(times.length * share)] ?? 0

/** One way in which items are looked for: what the use case does, and the address that does the same over HTTP. */
interface Search {
  readonly name: string
  readonly ask: (db: Db, words: string) => Promise<unknown>
  readonly path: (words: string) => string
}

/** The searches over HTTP and their statements alone, in turns, the same words for both. */
export async function benchItems(
  cluster: Cluster,
  url: string,
  cookie: string,
  departmentId: string,
  count: number,
): Promise<[what: string, figure: string, aim: string][]> {
  const now = new Date()
  const by = addDays(now.toISOString().slice(0, 10), 21)
  const actor = await requireBuyer(cluster)
  const narrowed = { departmentId, agreement: 'no', by, from: '5', to: '400' } as const
  const searches: Search[] = [
    {
      name: 'item search',
      ask: (db, words) => searchItems(db, words, departmentId, 6),
      path: (words) => `/api/items?${new URLSearchParams({ words, departmentId, limit: '6' }).toString()}`,
    },
    {
      name: 'the Catalogue, words and four filters',
      ask: (db, words) => browseCatalogue({ tx: db, now, actor }, { ...narrowed, words, limit: 30 }),
      path: (words) => `/api/catalogue?${new URLSearchParams({ ...narrowed, words, limit: '30' }).toString()}`,
    },
  ]
  const lines: [string, string, string][] = []
  for (const search of searches) lines.push(...(await benchSearch(cluster, url, cookie, search, count)))
  return lines
}

async function requireBuyer(cluster: Cluster): Promise<Actor> {
  const { db, pool } = openDatabase(cluster.url('rekko_app', 'rekko'), 1)
  const actor = await findActor(db, personId('Owen Marsh'), new Date())
  await pool.end()
  if (actor === null) throw new Error('nobody asks')
  return actor
}

async function benchSearch(
  cluster: Cluster,
  url: string,
  cookie: string,
  search: Search,
  count: number,
): Promise<[what: string, figure: string, aim: string][]> {
  const { db: seen, pool, statements } = recording(cluster.url('rekko_app', 'rekko'))
  const bare = new pg.Client({ connectionString: cluster.url('rekko_app', 'rekko'), options: PLANNING })
  await bare.connect()
  const [api, sql]: [number[], number[]] = [[], []]
  for (let i = 0; i < 320; i += 1) {
    const words = typed(i)
    statements.length = 0
    await search.ask(seen, words)
    const asked = [...statements]
    if (asked.length === 0) throw new Error('the search made no statement')
    const timed = async (work: () => Promise<unknown>) => {
      const from = performance.now()
      await work()
      return performance.now() - from
    }
    const overHttp = () =>
      fetch(url + search.path(words), { headers: { cookie } }).then(async (r) => {
        if (r.status !== 200) throw new Error(String(r.status))
        await r.arrayBuffer()
      })
    const alone = async () => {
      for (const s of asked) await bare.query(s.text, [...s.values])
    }
    // Whoever comes second finds warm pages: they take turns.
    const [a, s] =
      i % 2 === 0
        ? [await timed(overHttp), await timed(alone)]
        : await (async () => {
            const later = await timed(alone)
            return [await timed(overHttp), later] as const
          })()
    if (i >= 20) {
      api.push(a)
      sql.push(s)
    }
  }
  await bare.end()
  await pool.end()
  const line = (name: string, share: number): [string, string, string] => [
    `${search.name} over ${count.toLocaleString('en')} items, ${name}: API ${at(api, share).toFixed(1)} ms, its ` +
      `bare queries ${at(sql, share).toFixed(1)} ms`,
    `${(at(api, share) / at(sql, share)).toFixed(2)} times`,
    'at most 2 times',
  ]
  return [line('median', 0.5), line('95th percentile', 0.95)]
}
