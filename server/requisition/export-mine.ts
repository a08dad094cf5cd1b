import { isId } from '#core/base/id'
import { dayOf } from '#core/base/day'
import { isDecimalText } from '#core/base/decimal'
import { type MineRow } from '#shared/contract/requisition'
import { sayNext } from '#shared/words/mine'
import { sayOwnValue } from '#shared/words/own-field'
import { type Context } from '../context'
import { type Cell, writeCsv, writeXlsx } from '../files/write-sheet'
import { requireOrganisation } from '../settings/reads'
import { listJobs, readForm } from './form-reads'
import { listMine, type MineQuery } from './list-mine'
import { readPeopleNames } from './page-reads'

const MOST_ROWS = 20_000

/** A view of Mine as a file, in the order of the page, with exact moments and plain decimals. */
export async function exportMine({ tx, now, actor }: Context, q: Omit<MineQuery, 'after' | 'limit'> & { readonly as: 'csv' | 'xlsx' }): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const { baseCurrency, timeZone } = await requireOrganisation(tx)
  const found: MineRow[] = []
  for (let after: string | undefined; found.length < MOST_ROWS;) {
    const page = await listMine(tx, actor.id, { ...q, after, limit: 500 })
    found.push(...page.rows)
    if (page.next === null) break
    after = page.next
  }
  // Own fields stand behind the fixed columns, those of the whole request, each under its name.
  const fields = (await readForm(tx, dayOf(now, timeZone))).ownFields.filter((f) => f.on === 'requisition')
  const ids = (type: 'person' | 'job') => fields.filter((f) => f.type === type).flatMap((f) => found.flatMap((r) => r.own[f.id] ?? []))
  const names = {
    people: new Map(Object.entries(await readPeopleNames(tx, ids('person')))),
    jobs: new Map((await listJobs(tx, [...new Set(ids('job').filter(isId))], true)).map((j) => [j.id, `${j.number} ${j.name}`])),
  }
  const rows = found.map((r): Cell[] => {
    const next = sayNext(r)
    const own = fields.map((f): Cell => { const value = r.own[f.id] ?? ''; return value === '' ? null : f.type === 'number' && isDecimalText(value) ? { decimal: value } : f.type === 'date' ? value : sayOwnValue(f, value, names) })
    return [r.number, r.title, r.amount === null ? null : { decimal: r.amount }, baseCurrency, r.state, next.you ? `You: ${next.words}` : next.words, r.since, r.job, ...own]
  })
  const table = { name: 'Mine', head: ['Number', 'What it is for', 'Amount', 'Currency', 'State', 'Waits for', 'Since', 'Job', ...fields.map((f) => f.name)], rows }
  return q.as === 'csv'
    ? { bytes: writeCsv(table), name: 'mine.csv', mime: 'text/csv; charset=utf-8' }
    : { bytes: await writeXlsx(table), name: 'mine.xlsx', mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' }
}
