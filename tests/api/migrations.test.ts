import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { migrateDatabase } from '../../server/db/migrate'
import { freeLine, raise, soundDraft, startRekko, type Rekko } from '../setup/rekko'
import { brokenRules } from '../setup/invariants'

const FOLDER = join(process.cwd(), 'server/db/migrations')
const journal = JSON.parse(readFileSync(join(FOLDER, 'meta/_journal.json'), 'utf8')) as { entries: { tag: string }[] }
/** The first shape that had tables, and the roles that may use them. */
const FIRST = 3
const shapes = journal.entries.flatMap((_, count) =>
  count >= FIRST ? [{ count, last: journal.entries[count - 1]?.tag ?? '' }] : [],
)

interface Kept {
  readonly table: string
  readonly columns: string[]
  readonly rows: string[]
}

let source: Rekko
let number = ''
const { urls } = inject('cluster')
const made: string[] = []
const at = (role: 'postgres' | 'rekko_owner', database: string) => urls[role].replace(/DATABASE$/, database)
async function query<T extends pg.QueryResultRow>(
  url: string,
  work: (client: pg.Client) => Promise<T[]>,
): Promise<T[]> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}

// Data to carry: an organisation with a request in approval, one that passed at once, a draft, and their events and
// entries.
beforeAll(async () => {
  source = await startRekko()
  const owen = await source.as('Owen Marsh')
  number = (await raise(owen, soundDraft([], { title: 'From before', lines: [freeLine('1200'), freeLine('30')] }))).body
    .number
  expect((await raise(owen, soundDraft([], { lines: [freeLine('40')] }))).status).toBe(200)
  await owen.call('POST', '/api/requisitions', {
    body: { id: '11111111-1111-4111-8111-111111111111', draft: soundDraft([]) },
  })
})
afterAll(async () => {
  await source.stop()
  for (const name of made)
    await query(
      at('postgres', 'postgres'),
      async (c) => (await c.query(`drop database if exists "${name}" with (force)`)).rows as [],
    )
})

/** A database in an earlier shape, with what of today's data fits into it. */
async function earlier(count: number): Promise<{ name: string; kept: Kept[] }> {
  const name = `shape_${process.pid}_${made.length}_${count}`
  made.push(name)
  await query(
    at('postgres', 'postgres'),
    async (c) => (await c.query(`create database "${name}" owner rekko_owner`)).rows as [],
  )
  const folder = mkdtempSync('/var/tmp/rekko-shape-')
  cpSync(FOLDER, folder, { recursive: true })
  writeFileSync(
    join(folder, 'meta/_journal.json'),
    JSON.stringify({ ...journal, entries: journal.entries.slice(0, count) }),
  )
  await query(at('rekko_owner', name), async (c) => {
    await migrate(drizzle(c), { migrationsFolder: folder })
    return []
  })
  rmSync(folder, { recursive: true })
  const columns = await query(
    at('postgres', name),
    async (c) =>
      (
        await c.query<{ table: string; columns: string[] }>(`
    select c.table_name as table, array_agg(c.column_name::text order by c.ordinal_position) as columns
      from information_schema.columns c join information_schema.tables t using (table_schema, table_name)
    where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.is_generated = 'NEVER' group by 1 order by 1`)
      ).rows,
  )
  const kept: Kept[] = []
  for (const { table, columns: old } of columns)
    kept.push({ table, columns: old, rows: await rowsOf((text) => source.sql<{ row: string }>(text), table, old) })
  await query(at('postgres', name), async (c) => {
    await c.query('set session_replication_role = replica')
    for (const { table, columns: old, rows } of kept) {
      // What a migration enters by itself is what was there already.
      await c.query(`delete from "${table}"`)
      const list = old.map((o) => `"${o}"`).join(', ')
      for (const row of rows)
        await c.query(
          `insert into "${table}" (${list}) overriding system value select ${list} from ` +
            `jsonb_populate_record(null::"${table}", $1::jsonb)`,
          [row],
        )
    }
    // Counters stand where the rows left them.
    const counters = await c.query<{ table: string; column: string }>(
      `select table_name as table, column_name as column from information_schema.columns where table_schema = ` +
        `'public' and (is_identity = 'YES' or column_default like 'nextval(%')`,
    )
    for (const { table, column } of counters.rows)
      await c.query(
        `select setval(pg_get_serial_sequence('"${table}"', '${column}'), (select coalesce(max("${column}"), 0) ` +
          `+ 1 from "${table}"), false)`,
      )
    return []
  })
  return { name, kept }
}

/**
 * How a table that changed its shape since reads in its former one: what a requisition and an order share lies in their
 * document now, what is told is told in facts, and a rate is kept as it was published.
 */
const FORMERLY: Record<string, string | undefined> = {
  requisition: `(select r.*, r.kind_code as kind, d.number, d.version, d.state, d.title, d.owner_id, d.created_at,
    d.changed_at, d.sent_at, d.state_since from requisition r join document d using (id))`,
  requisition_line: '(select l.*, round(1 / l.per_base, 20) as to_base from requisition_line l)',
  purchase_order: `(select o.*, round(1 / o.per_base, 20) as to_base, d.number, d.version, d.state,
    d.owner_id as buyer_id, d.created_at,
    d.sent_at as issued_at from purchase_order o join document d using (id))`,
  order_line: '(select l.*, l.borne as freight from order_line l)',
  attachment: '(select a.*, a.document_id as requisition_id from attachment a)',
  remark: '(select m.*, m.document_id as requisition_id from remark m)',
  notice: "(select n.*, coalesce(n.told ->> 'sentence', n.told ->> 'code') as sentence from notice n)",
  outgoing_mail: `(select m.*, coalesce(m.told ->> 'subject', m.told ->> 'code') as subject,
    coalesce(m.told ->> 'sentence', m.told ->> 'code') as body from outgoing_mail m)`,
  approval_policy: `(select y.*, (y.in_force_at at time zone (select time_zone from organisation))::date
    as in_force_from from approval_policy y)`,
  order_revision: '(select v.*, null::uuid as mail_id from order_revision v)',
}

/** Every row of a table as text, of the columns that are asked for. */
async function rowsOf(
  run: (text: string) => Promise<{ row: string }[]>,
  table: string,
  columns: readonly string[],
): Promise<string[]> {
  const from = FORMERLY[table] ?? `"${table}"`
  const list = columns.map((c) => `"${c}"`).join(', ')
  return (await run(`select to_jsonb(x)::text as row from (select ${list} from ${from} f) x order by 1`)).map(
    (r) => r.row,
  )
}

describe.each(shapes)('from the shape of $last', ({ count }) => {
  test('data are carried forward whole, and the application works on them', async () => {
    const { name, kept } = await earlier(count)
    expect(kept.find((k) => k.table === 'requisition')?.rows).toHaveLength(3)
    await migrateDatabase(at('rekko_owner', name), process.cwd())
    await query(at('postgres', name), async (c) => {
      for (const { table, columns, rows } of kept)
        expect([
          table,
          await rowsOf(async (text) => (await c.query<{ row: string }>(text)).rows, table, columns),
        ]).toEqual([table, rows])
      return []
    })
    const rekko = await startRekko({ template: name })
    try {
      const owen = await rekko.as('Owen Marsh')
      const mine = await owen.call<{ rows: { id: string; number: string | null; title: string }[] }>(
        'GET',
        '/api/requisitions',
      )
      expect(mine.body.rows).toHaveLength(3)
      const before = mine.body.rows.find((r) => r.number === number)
      expect(before?.title).toBe('From before')
      const ines = await rekko.as('Ines Adeyemi')
      const slips = await ines.call<{ slips: { id: string }[] }>('GET', '/api/waiting')
      expect(JSON.stringify(slips.body)).toContain(before?.id)
      // Numbers go on from where they were.
      const next = await raise(owen, soundDraft([], { lines: [freeLine('20')] }))
      expect(next.status, JSON.stringify(next.body)).toBe(200)
      expect([next.status, Number(next.body.number.slice(-5))]).toEqual([200, Number(number.slice(-5)) + 2])
      // What is kept beside lines and ledger for speed was counted from what was there.
      expect((await brokenRules(rekko)).filter((r) => r.includes('count') || r.includes('agree'))).toEqual([])
    } finally {
      await rekko.stop()
    }
  })
})

test('what requests that crossed once let in twice is carried forward: the first stays', async () => {
  const { name } = await earlier(journal.entries.findIndex((e) => e.tag === '0016_one_of_each'))
  await query(at('postgres', name), async (c) => {
    for (const [from, until] of [
      ['2035-01-04', '2035-01-08'],
      ['2035-01-04', '2035-01-08'],
      ['2035-01-08', '2035-01-12'],
      ['2035-01-11', '2035-01-13'],
      ['2035-01-14', '2035-01-15'],
    ])
      await c.query(
        `insert into absence (person_id, from_day, until_day)
          select id, $1, $2 from person where name = 'Harriet Voss'`,
        [from, until],
      )
    for (const [nth, tax] of ['HL 77-1', 'hl771', 'HL 77-2'].entries())
      await c.query(
        `insert into supplier select (jsonb_populate_record(s, jsonb_build_object('id', gen_random_uuid(),
          'name', 'Twin ' || $1, 'number', 'S-9' || $1, 'tax_number', $2::text))).* from supplier s limit 1`,
        [String(nth), tax],
      )
    return []
  })
  await migrateDatabase(at('rekko_owner', name), process.cwd())
  const run = <T extends pg.QueryResultRow>(text: string) =>
    query(at('postgres', name), async (c) => (await c.query<T>(text)).rows)
  const absences = await run<{ day: string }>(
    "select from_day::text as day from absence where from_day >= '2035-01-01' order by 1",
  )
  const suppliers = await run(
    "select tax_number as tax, proposal_note as note from supplier where name like 'Twin %' order by number",
  )
  expect(absences.map((a) => a.day)).toEqual(['2035-01-04', '2035-01-11', '2035-01-14'])
  expect(suppliers).toEqual([
    { tax: 'HL 77-1', note: '' },
    { tax: null, note: 'Tax number hl771, which is that of Twin 0 (S-90).' },
    { tax: 'HL 77-2', note: '' },
  ])
})

test('every migration is in the journal once, in the order of its number', () => {
  expect(journal.entries.map((e, i) => [i, Number(e.tag.slice(0, 4))])).toEqual(journal.entries.map((_, i) => [i, i]))
})
