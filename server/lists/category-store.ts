import { eq, sql } from 'drizzle-orm'
import type { Drawing } from '#core/catalogue/drawing'
import type { Values } from '#core/lists/list'
import { named, read } from '../db/read'
import { category } from '../db/schema/catalogue'
import { inParts, orNull, textOf, together, yesNo, type EntryIds, type ListKeeper } from './keeper'

const c = named(category, 'c')
const up = named(category, 'up')

const columnsOf = (v: Values) => ({
  name: v.name ?? '',
  accountCode: orNull(v.account),
  drawing: (v.drawing ?? 'box') as Drawing,
  retired: v.retired === 'yes',
})
const parentOf = (v: Values, ids: EntryIds) => ids('categories', v.parent ?? '')

/** Categories of the catalogue, each possibly part of another. */
export const categories: ListKeeper = {
  async read(tx) {
    const rows = await read(
      tx,
      {
        id: c.id,
        name: c.name,
        parent: sql<string | null>`${up.name}`,
        account: c.accountCode,
        drawing: c.drawing,
        retired: c.retired,
      },
      sql`from ${c} left join ${up} on ${up.id} = ${c.parentId} order by ${c.name}`,
    )
    return rows.map(({ id, ...r }) => ({
      id,
      values: {
        name: r.name,
        parent: textOf(r.parent),
        account: textOf(r.account),
        drawing: r.drawing,
        retired: yesNo(r.retired),
      },
    }))
  },
  async insert(tx, entries, ids) {
    await inParts(entries, (some) =>
      tx.insert(category).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values) }))),
    )
    // What they are part of may come later in the same file.
    await together(
      entries
        .map((e) => ({ id: e.id, parentId: parentOf(e.values, ids) }))
        .filter((e) => e.parentId !== null)
        .map(({ id, parentId }) => tx.update(category).set({ parentId }).where(eq(category.id, id))),
    )
  },
  async update(tx, entries, ids) {
    await together(
      entries.map((e) =>
        tx
          .update(category)
          .set({ ...columnsOf(e.values), parentId: parentOf(e.values, ids) })
          .where(eq(category.id, e.id)),
      ),
    )
  },
  async remove(tx, id) {
    await tx.delete(category).where(eq(category.id, id))
  },
}
