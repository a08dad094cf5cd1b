import { dayOf } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import type { ListName } from '#core/lists/list'
import { writeRows, type ListCell } from '#core/lists/write-rows'
import { LIST_WORDS } from '#shared/words/lists'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { inWorkshop } from '../files/workshop'
import { writeCsv, writeCsvRows } from '../files/write-sheet'
import { requireOrganisation } from '../settings/reads'
import { eachEntries } from './each-entry'
import { requireList } from './read-list'

/** A list as a file, whole and with what is retired, which can be brought back unchanged. */
export async function exportList(
  ctx: Context,
  name: ListName,
  as: 'csv' | 'xlsx',
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  requireList(ctx, name)
  const list = LISTS[name]
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const { decimalMark } = waysOf(ctx.actor.locale)
  const { head } = writeRows(list, [], decimalMark)
  const title = LIST_WORDS[name].title
  // Of a list that may be long only some entries are held at a time.
  const written: Buffer[] = [writeCsv({ name: title, head, rows: [] })]
  const cells: ListCell[][] = []
  for await (const some of eachEntries(ctx.tx, list, today)) {
    const { rows } = writeRows(
      list,
      some.map((e) => e.values),
      decimalMark,
    )
    if (as === 'csv') written.push(writeCsvRows(rows))
    else cells.push(...rows)
  }
  return as === 'csv'
    ? { bytes: Buffer.concat(written), name: `${name}.csv`, mime: 'text/csv; charset=utf-8' }
    : {
        bytes: await inWorkshop('write-xlsx', { name: title, head, rows: cells }),
        name: `${name}.xlsx`,
        mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      }
}
