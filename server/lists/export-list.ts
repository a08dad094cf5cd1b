import { dayOf } from '#core/base/day'
import { LISTS } from '#core/lists/definitions'
import type { ListName } from '#core/lists/list'
import { writeRows } from '#core/lists/write-rows'
import { LIST_WORDS } from '#shared/words/lists'
import { waysOf } from '#shared/words/ways'
import type { Context } from '../context'
import { inWorkshop } from '../files/workshop'
import { writeCsv, type Table } from '../files/write-sheet'
import { requireOrganisation } from '../settings/reads'
import { KEEPERS } from './keepers'
import { requireList } from './read-list'

/** A list as a file, whole and with what is retired, which can be brought back unchanged. */
export async function exportList(
  ctx: Context,
  name: ListName,
  as: 'csv' | 'xlsx',
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  requireList(ctx, name)
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const entries = (await KEEPERS[name].read(ctx.tx, today)).map((e) => e.values)
  const { head, rows } = writeRows(LISTS[name], entries, waysOf(ctx.actor.locale).decimalMark)
  const table: Table = { name: LIST_WORDS[name].title, head, rows }
  return as === 'csv'
    ? { bytes: writeCsv(table), name: `${name}.csv`, mime: 'text/csv; charset=utf-8' }
    : {
        bytes: await inWorkshop('write-xlsx', table),
        name: `${name}.xlsx`,
        mime: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
      }
}
