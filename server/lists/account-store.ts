import { eq, sql } from 'drizzle-orm'
import { read } from '../db/read'
import { account } from '../db/schema/budget'
import { inParts, yesNo, type ListKeeper, together } from './keeper'

/** Accounts: their code is what they are known by everywhere. */
export const accounts: ListKeeper = {
  newId: (v) => v.code ?? '',
  async read(tx) {
    const { code, name, retired } = account
    const rows = await read(tx, { code, name, retired }, sql`from ${account} order by ${account.code}`)
    return rows.map((r) => ({ id: r.code, values: { ...r, retired: yesNo(r.retired) } }))
  },
  insert: (tx, entries) =>
    inParts(entries, (some) =>
      tx.insert(account).values(
        some.map(({ values: v }) => ({
          code: v.code ?? '',
          name: v.name ?? '',
          retired: v.retired === 'yes',
        })),
      ),
    ),
  async update(tx, entries) {
    await together(
      entries.map(({ id, values: v }) =>
        tx
          .update(account)
          .set({ name: v.name ?? '', retired: v.retired === 'yes' })
          .where(eq(account.code, id)),
      ),
    )
  },
  async remove(tx, id) {
    await tx.delete(account).where(eq(account.code, id))
  },
}
