import { sayNext } from '#shared/words/mine'
import { type Context } from '../context'
import { type Cell, writeCsv, writeXlsx } from '../files/write-sheet'
import { requireOrganisation } from '../settings/reads'
import { listMine, type MineQuery } from './list-mine'

const MOST_ROWS = 20_000

/** A view of Mine as a file, in the order of the page, with exact moments and plain decimals. */
export async function exportMine({ tx, actor }: Context, q: { readonly view: MineQuery['view']; readonly words: string; readonly as: 'csv' | 'xlsx' }): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const { baseCurrency } = await requireOrganisation(tx)
  const rows: Cell[][] = []
  for (let after: string | undefined; rows.length < MOST_ROWS;) {
    const page = await listMine(tx, actor.id, { view: q.view, words: q.words, after, limit: 500 })
    for (const r of page.rows) {
      const next = sayNext(r)
      rows.push([r.number, r.title, r.amount === null ? null : { decimal: r.amount }, baseCurrency, r.state, next.you ? `You: ${next.words}` : next.words, r.since])
    }
    if (page.next === null) break
    after = page.next
  }
  const table = { name: 'Mine', head: ['Number', 'What it is for', 'Amount', 'Currency', 'State', 'Waits for', 'Since'], rows }
  return q.as === 'csv'
    ? { bytes: writeCsv(table), name: 'mine.csv', mime: 'text/csv; charset=utf-8' }
    : { bytes: await writeXlsx(table), name: 'mine.xlsx', mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' }
}
