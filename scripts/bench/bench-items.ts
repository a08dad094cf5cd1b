import pg from 'pg'
import { PLANNING } from '../../server/db/client'
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

/** The search over HTTP and its statements alone, in turns, the same words for both. */
export async function benchItems(
  cluster: Cluster,
  url: string,
  cookie: string,
  departmentId: string,
  count: number,
): Promise<[what: string, figure: string, aim: string][]> {
  const { db: seen, pool, statements } = recording(cluster.url('rekko_app', 'rekko'))
  const bare = new pg.Client({ connectionString: cluster.url('rekko_app', 'rekko'), options: PLANNING })
  await bare.connect()
  const [api, sql]: [number[], number[]] = [[], []]
  for (let i = 0; i < 320; i += 1) {
    const words = typed(i)
    statements.length = 0
    await searchItems(seen, words, departmentId, 6)
    const asked = [...statements]
    if (asked.length === 0) throw new Error('the search made no statement')
    const timed = async (work: () => Promise<unknown>) => {
      const from = performance.now()
      await work()
      return performance.now() - from
    }
    const overHttp = () =>
      fetch(`${url}/api/items?${new URLSearchParams({ words, departmentId, limit: '6' }).toString()}`, {
        headers: { cookie },
      }).then(async (r) => {
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
    `item search over ${count.toLocaleString('en')} items, ${name}: API ${at(api, share).toFixed(1)} ms, its ` +
      `bare queries ${at(sql, share).toFixed(1)} ms`,
    `${(at(api, share) / at(sql, share)).toFixed(2)} times`,
    'at most 2 times',
  ]
  return [line('median', 0.5), line('95th percentile', 0.95)]
}
