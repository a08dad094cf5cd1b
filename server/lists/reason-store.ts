import { eq, sql } from 'drizzle-orm'
import type { ReasonUse } from '#core/approval/reasons'
import type { Values } from '#core/lists/list'
import { read } from '../db/read'
import { preparedReason } from '../db/schema/approval'
import { inParts, together, yesNo, type ListKeeper } from './keeper'

const columnsOf = (v: Values) => ({
  text: v.text ?? '',
  use: (v.use ?? 'all') as ReasonUse,
  retired: v.retired === 'yes',
})

/** Reasons that are prepared for whoever decides. */
export const reasons: ListKeeper = {
  async read(tx) {
    const { id, text, use, retired } = preparedReason
    const rows = await read(tx, { id, text, use, retired }, sql`from ${preparedReason} order by ${preparedReason.text}`)
    return rows.map((r) => ({ id: r.id, values: { text: r.text, use: r.use, retired: yesNo(r.retired) } }))
  },
  insert: (tx, entries) =>
    inParts(entries, (some) =>
      tx.insert(preparedReason).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values) }))),
    ),
  async update(tx, entries) {
    await together(
      entries.map((e) => tx.update(preparedReason).set(columnsOf(e.values)).where(eq(preparedReason.id, e.id))),
    )
  },
  async remove(tx, id) {
    await tx.delete(preparedReason).where(eq(preparedReason.id, id))
  },
}
