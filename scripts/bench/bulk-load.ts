import pg from 'pg'
import { idOf } from '../../demo/ids'
import { budgetLineId } from '../../demo/world/budgets'
import { personId } from '../../demo/world/people'

/** The last group of an id: always twelve digits, so that a pgbench script can write ids too. */
export const idNumber = (n: number) => String(100_000_000_000 + n)
export const draftId = (n: number) => `00000000-0000-4000-8000-${idNumber(n)}`
export const lineId = (n: number, line: number) => `00000000-0000-4000-800${line + 1}-${idNumber(n)}`

/**
 * Fills the tables with requisitions of two lines, spread over owners and states, by plain SQL: for
 * measuring lists and for nothing else. One in fifty is Owen's, one in five waits on the Desk.
 */
export const bulkLoad = (url: string, count: number, today: string): Promise<void> =>
  withClient(url, (client) => loadRequisitions(client, count, today))

/** A connection for `work`, ended also when it fails, so that its error is what is heard of. */
export async function withClient(url: string, work: (client: pg.Client) => Promise<void>): Promise<void> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    await work(client)
  } finally {
    await client.end()
  }
}

async function loadRequisitions(client: pg.Client, count: number, today: string): Promise<void> {
  const year = Number(today.slice(5, 7)) >= 4 ? Number(today.slice(0, 4)) : Number(today.slice(0, 4)) - 1
  const others = ['Rosa Castell', 'Priya Lindqvist', 'Jonas Abara', 'Bryn Tolliver', 'Sorrel Quist'].map(personId)
  await client.query('begin')
  await client.query(
    `
    insert into document (id, kind, number, state, title, owner_id, created_at, changed_at, sent_at, state_since)
    select ('00000000-0000-4000-9000-' || lpad(n::text, 12, '0'))::uuid, 'requisition', 'L-' || n,
      case when n % 5 = 0 then 'approved' when n % 11 = 0 then 'in approval' else 'ordered' end, 'Need ' || n, o.id,
      t.at, t.at, t.at, t.at
    from generate_series(1, ${count}) n
      cross join lateral (select case when n % 50 = 0 then $1::uuid else ($2::uuid[])[1 + n % 5] end as id) o
      cross join lateral (select now() - n * interval '4 minutes' as at) t`,
    [personId('Owen Marsh'), others],
  )
  await client.query(
    `
    insert into requisition (id, department_id, raised_by_id, ship_to_id, need_by, why, fiscal_year, period, amount,
      round)
    select d.id, $1, d.owner_id, $2, $3::date + 20, 'to measure', $4, 8, 32.85, 1
    from document d where d.number like 'L-%'`,
    [idOf('department', 'Water Systems'), idOf('ship-to', 'Goods Yard'), today, year],
  )
  for (const [i, part] of [
    [1, 'CP-GS-25'],
    [2, 'ST-HC-60'],
  ] as const) {
    await client.query(
      `
      insert into requisition_line (id, requisition_id, position, item_id, description, quantity, unit, unit_price,
        price_base, currency, per_base, tax_code, tax_rate, supplier_id, ordered)
      select ('00000000-0000-4000-900${i}-' || lpad(n::text, 12, '0'))::uuid,
        ('00000000-0000-4000-9000-' || lpad(n::text, 12, '0'))::uuid, ${i}, i.id, i.name, 5, i.unit, 3.85, 1, 'EUR',
        1, 'S', 19, i.supplier_id,
        case when n % 5 = 0 or n % 11 = 0 then 0 else 5 end
      from generate_series(1, ${count}) n, item i where i.supplier_part = $1`,
      [part],
    )
    await client.query(
      `
      insert into requisition_coding (line_id, position, budget_line_id, reclaimable)
      select ('00000000-0000-4000-900${i}-' || lpad(n::text, 12, '0'))::uuid, 0, $1, 100 from generate_series(1,
        ${count}) n`,
      [budgetLineId('Water Systems', '610', year)],
    )
  }
  await client.query('commit')
  await client.query('analyze')
}
