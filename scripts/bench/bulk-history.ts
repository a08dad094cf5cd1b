import type pg from 'pg'
import { idOf } from '../../demo/ids'
import { personId } from '../../demo/world/people'
import { withClient } from './bulk-load'

/** Requests `n` after `from` up to `to`, two lines each. */
interface Span {
  readonly from: number
  readonly to: number
}
/** An id that tells by its fourth group what it is of, and by its last which. */
const id = (group: string, n: string) => `('00000000-0000-4000-${group}-' || lpad((${n})::text, 12, '0'))::uuid`

/** The requests of the history by their number, as pages and tests name them. */
export const historyId = (n: number) => `00000000-0000-4000-b000-${String(n).padStart(12, '0')}`

/** One in fifty waits to be ordered, one in a hundred for a decision, the rest is ordered. */
const IS_OPEN = 'n % 50 = 0 or n % 100 = 7'

/**
 * Fills the tables with years of requests, each with its ledger entries, its order (four requests share one), its
 * events and a notice, spread over departments' budget lines and owners, by plain SQL: for measuring how lists grow,
 * and for nothing else. One in forty is Owen's.
 */
export const bulkHistory = (url: string, span: Span): Promise<void> => withClient(url, (client) => load(client, span))

async function load(client: pg.Client, { from, to }: Span): Promise<void> {
  const each = `generate_series(${from + 1}, ${to}) n`
  const others = ['Rosa Castell', 'Priya Lindqvist', 'Jonas Abara', 'Bryn Tolliver', 'Sorrel Quist'].map(personId)
  const run = (text: string, values: unknown[] = []) => client.query(text, values)
  // Checked once below instead of row by row.
  await run("set session_replication_role = replica; set synchronous_commit = off; set work_mem = '128MB'")
  await run('begin')
  await run(
    `insert into document (id, kind, number, state, title, owner_id, created_at, changed_at, sent_at, state_since)
    select ${id('b000', 'n')}, 'requisition', 'H-' || n, case when n % 50 = 0 then 'approved'
        when n % 100 = 7 then 'in approval' else 'ordered' end,
      ($3::text[])[1 + n % 7] || ' for ' || ($4::text[])[1 + n / 7 % 11] || ' ' || n,
      case when n % 40 = 0 then $1::uuid else ($2::uuid[])[1 + n % 5] end, t.at, t.at, t.at, t.at
    from ${each} cross join lateral (select now() - interval '40 days' - n * interval '4 minutes' as at) t`,
    [
      personId('Owen Marsh'),
      others,
      ['Lamps', 'Valves', 'Hoses', 'Reagents', 'Gloves', 'Cables', 'Anodes'],
      ['pump', 'tank', 'winch', 'skimmer', 'boat', 'laboratory', 'workshop', 'pool', 'store', 'yard', 'clinic'],
    ],
  )
  await run(
    `insert into requisition (id, department_id, raised_by_id, ship_to_id, need_by, why, fiscal_year, period, amount,
      round)
    select ${id('b000', 'n')}, p.department_id, p.id, $3, current_date + 20, 'to measure', 2026, 8, 38.5, 1
    from ${each} join person p on p.id = case when n % 40 = 0 then $1::uuid else ($2::uuid[])[1 + n % 5] end`,
    [personId('Owen Marsh'), others, idOf('ship-to', 'Goods Yard')],
  )
  await run(
    'create temp table payer on commit drop as select id, row_number() over (order by id) - 1 as nth, ' +
      'count(*) over () as many from budget_line',
  )
  await run(
    'create temp table thing on commit drop as select id, name, unit, supplier_id, supplier_part, ' +
      'row_number() over (order by supplier_part) - 1 as nth, count(*) over () as many from item',
  )
  for (const i of [1, 2]) {
    const thing = `join thing i on i.nth = (n * 7 + ${i}) % i.many`
    await run(
      `insert into requisition_line (id, requisition_id, position, item_id, description, quantity, unit, unit_price,
        price_base, currency, per_base, tax_code, tax_rate, supplier_id, supplier_part, ordered)
      select ${id(`b00${i}`, 'n')}, ${id('b000', 'n')}, ${i}, i.id, i.name, 5, i.unit, 3.85, 1, 'EUR', 1, 'S', 19,
        i.supplier_id, i.supplier_part, case when ${IS_OPEN} then 0 else 5 end
      from ${each} ${thing}`,
    )
    await run(
      `insert into requisition_coding (line_id, position, budget_line_id, reclaimable)
      select ${id(`b00${i}`, 'n')}, 0, b.id, 100 from ${each} join payer b on b.nth = n % b.many`,
    )
    // An order line of its own for each thing of every four requests that were ordered together.
    await run(
      `insert into order_line (id, order_id, position, item_id, description, quantity, unit, unit_price, price_base,
        tax_code, tax_rate, need_by, net)
      select ${id(`b10${i}`, 'n / 4')}, ${id('b100', 'n / 4')}, ${i}, i.id, i.name, 20, i.unit, 3.85, 1, 'S', 19,
        current_date, 77 from ${each} ${thing} where n % 4 = 1`,
    )
    await run(
      `insert into order_line_source (order_line_id, requisition_line_id, quantity)
      select ${id(`b10${i}`, 'n / 4')}, ${id(`b00${i}`, 'n')}, 5 from ${each} where not (${IS_OPEN}) and n % 4 <> 0`,
    )
    for (const [stage, amount, kind, document, line, when] of [
      ['reserved', 22.9, 'requisition', id('b000', 'n'), id(`b00${i}`, 'n'), 'true'],
      ['reserved', -22.9, 'requisition', id('b000', 'n'), id(`b00${i}`, 'n'), `not (${IS_OPEN})`],
      ['committed', 22.9, 'order', id('b100', 'n / 4'), id(`b10${i}`, 'n / 4'), `not (${IS_OPEN}) and n % 4 <> 0`],
    ] as const)
      await run(
        `insert into budget_entry (at, budget_line_id, period, stage, amount, document_kind, document_id, line_id,
          coding_at, cause)
        select now() - n * interval '4 minutes', b.id, 8, '${stage}', ${amount}, '${kind}', ${document}, ${line},
          n % 4, '${stage}' from ${each} join payer b on b.nth = n % b.many where ${when}`,
      )
  }
  await run(
    `insert into document (id, kind, number, state, title, owner_id, created_at, changed_at, sent_at, state_since)
    select ${id('b100', 'n / 4')}, 'order', 'Q-' || n / 4, 'issued', s.name, $1, t.at, t.at, t.at, t.at
    from ${each} join thing i on i.nth = (n * 7 + 1) % i.many join supplier s on s.id = i.supplier_id
      cross join lateral (select now() - interval '39 days' - n * interval '4 minutes' as at) t where n % 4 = 1`,
    [personId('Leonie Farrow')],
  )
  await run(
    `insert into purchase_order (id, supplier_id, ship_to_id, currency, terms_kind, terms_days, revision, per_base,
      net, tax)
    select ${id('b100', 'n / 4')}, i.supplier_id, $1, 'EUR', 'net', 30, 1, 1, 154, 29.26
    from ${each} join thing i on i.nth = (n * 7 + 1) % i.many where n % 4 = 1`,
    [idOf('ship-to', 'Goods Yard')],
  )
  await run(
    `insert into order_revision (order_id, revision, issued_by_id, issued_at, snapshot)
    select ${id('b100', 'n / 4')}, 1, $1, now(), '{}' from ${each} where n % 4 = 1`,
    [personId('Leonie Farrow')],
  )
  await run(
    `insert into order_sending (id, order_id, revision, channel, address, reference, outcome, laid_at, sent_at)
    select ${id('b104', 'n / 4')}, ${id('b100', 'n / 4')}, 1, 'e-mail', 'x@y.example', 'h-' || n, 'sent', now(), now()
    from ${each} where n % 4 = 1`,
  )
  for (const type of ['draft begun', 'sent', 'approved', 'ordered'])
    await run(
      `insert into event (at, actor_id, type, subject_kind, subject_id)
      select now() - n * interval '4 minutes', ($1::uuid[])[1 + n % 5], '${type}', 'requisition', ${id('b000', 'n')}
      from ${each}`,
      [others],
    )
  await run(
    `insert into notice (person_id, at, told, about_kind, about_id, read_at)
    select case when n % 40 = 0 then $1::uuid else ($2::uuid[])[1 + n % 5] end, now() - n * interval '4 minutes',
      '{"code": "plain", "subject": "x", "sentence": "It was ordered."}', 'requisition', ${id('b000', 'n')},
      case when n < 20 then null else now() end
    from ${each}`,
    [personId('Owen Marsh'), others],
  )
  await run(
    `insert into item_asked (item_id, department_id, lines)
    select l.item_id, r.department_id, count(*) from ${each} join requisition r on r.id = ${id('b000', 'n')}
      join requisition_line l on l.requisition_id = r.id where l.item_id is not null group by 1, 2
    on conflict (item_id, department_id) do update set lines = item_asked.lines + excluded.lines`,
  )
  await run('commit')
  await run('vacuum analyze')
}
