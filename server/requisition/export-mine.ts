import { isId } from '#core/base/id'
import { dec, isDecimalText } from '#core/base/decimal'
import { lineNet } from '#core/base/line-net'
import { adjustmentsOf, type OwnValues } from '#core/requisition/draft'
import type { OwnField } from '#core/requisition/own-field'
import type { MineRow } from '#shared/contract/mine'
import { sayNext } from '#shared/words/mine'
import { OUTWARD } from '#shared/words/ways'
import { sayOwnValue, type OwnNames } from '#shared/words/own-field'
import type { Context } from '../context'
import type { Tx } from '../db/client'
import { asSheet } from '../files/as-sheet'
import type { Cell, Table } from '../files/write-sheet'
import { requireTerms } from '../settings/reads'
import { listJobs, readForm, type FormEver } from './form-reads'
import { readMinePage } from './mine-page'
import { listMineLines, type MineQuery } from './mine-reads'
import { readPeopleNames } from './page-reads'

const MOST_ROWS = 20_000

/**
 * A view of Mine as a file, request by request or line by line, in the order of the page, with exact moments and plain
 * decimals.
 */
export async function exportMine(
  ctx: Context,
  q: Omit<MineQuery, 'after' | 'limit'> & { readonly of: 'requests' | 'lines'; readonly as: 'csv' | 'xlsx' },
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const { tx, now } = ctx
  const terms = await requireTerms(tx, now)
  const found: MineRow[] = []
  for (let after: string | undefined; found.length < MOST_ROWS;) {
    const page = await readMinePage(ctx, { ...q, after, limit: 500 }, terms)
    found.push(...page.rows)
    if (page.next === null) break
    after = page.next
  }
  const { ownFields } = await readForm(tx, terms.today)
  const table =
    q.of === 'lines'
      ? await tableOfLines(
          tx,
          found,
          ownFields.filter((f) => f.on === 'line'),
        )
      : await tableOfRequests(
          tx,
          found,
          ownFields.filter((f) => f.on === 'requisition'),
          terms.organisation.baseCurrency,
        )
  const name = q.of === 'lines' ? 'mine-lines' : 'mine'
  return asSheet(table, name, q.as)
}

async function tableOfRequests(
  tx: Tx,
  found: readonly MineRow[],
  fields: FormEver['ownFields'],
  baseCurrency: string,
): Promise<Table> {
  const own = await ownColumns(
    tx,
    fields,
    found.map((r) => r.own),
  )
  const rows = found.map((r): Cell[] => {
    const next = sayNext(r)
    return [
      r.number,
      r.title,
      r.amount === null ? null : { decimal: r.amount },
      baseCurrency,
      r.state,
      next.you ? `You: ${next.words}` : next.words,
      r.since,
      r.job,
      ...own.cells(r.own),
    ]
  })
  return {
    name: 'Mine',
    head: ['Number', 'What it is for', 'Amount', 'Currency', 'State', 'Waits for', 'Since', 'Job', ...own.names],
    rows,
  }
}

async function tableOfLines(tx: Tx, found: readonly MineRow[], fields: FormEver['ownFields']): Promise<Table> {
  const lines = await listMineLines(
    tx,
    found.map((r) => r.id),
  )
  const own = await ownColumns(
    tx,
    fields,
    lines.map((l) => l.own),
  )
  const requests = new Map(found.map((r) => [r.id, r]))
  const rows = lines.map((l): Cell[] => {
    const of = requests.get(l.requisitionId)
    const net = l.unitPrice === null ? null : lineNet({ ...l, unitPrice: l.unitPrice, adjustments: adjustmentsOf(l) })
    const amount = (quantity: string): Cell => ({ decimal: dec(quantity).toFixed() })
    return [
      of?.number ?? null,
      of?.title ?? '',
      of?.state ?? '',
      amount(String(l.position + 1)),
      l.description,
      l.secondDescription,
      amount(l.quantity),
      l.unit,
      l.unitPrice === null ? null : amount(l.unitPrice),
      amount(l.priceBase),
      net === null ? null : { decimal: net.amount },
      l.currency,
      l.supplier,
      l.supplierPart,
      l.category,
      amount(l.ordered),
      amount(l.cancelled),
      l.job,
      l.needBy,
      ...own.cells(l.own),
    ]
  })
  return {
    name: 'Lines of mine',
    head: [
      'Number',
      'What it is for',
      'State',
      'Line',
      'Description',
      'More',
      'Quantity',
      'Unit',
      'Unit price',
      'Price is per',
      'Net',
      'Currency',
      'Supplier',
      'Supplier part',
      'Category',
      'Ordered',
      'Cancelled',
      'Job',
      'Needed by',
      ...own.names,
    ],
    rows,
  }
}

/**
 * Own fields as columns behind the fixed ones, each under its name; those asked for no longer where something stands
 * in them.
 */
async function ownColumns(
  tx: Tx,
  fields: FormEver['ownFields'],
  held: readonly OwnValues[],
): Promise<{ names: string[]; cells: (own: OwnValues) => Cell[] }> {
  const shown = fields.filter((f) => !f.retired || held.some((own) => (own[f.id] ?? '') !== ''))
  const ids = (type: 'person' | 'job') =>
    shown.filter((f) => f.type === type).flatMap((f) => held.flatMap((own) => own[f.id] ?? []))
  const names: OwnNames = {
    people: new Map(Object.entries(await readPeopleNames(tx, ids('person')))),
    jobs: new Map(
      (await listJobs(tx, [...new Set(ids('job').filter(isId))], true)).map((j) => [j.id, `${j.number} ${j.name}`]),
    ),
  }
  const cell = (f: OwnField, value: string): Cell => {
    if (value === '') return null
    return f.type === 'number' && isDecimalText(value)
      ? { decimal: value }
      : f.type === 'date'
        ? value
        : sayOwnValue(f, value, names, OUTWARD)
  }
  return { names: shown.map((f) => f.name), cells: (own) => shown.map((f) => cell(f, own[f.id] ?? '')) }
}
