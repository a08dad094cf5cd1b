import { eq, inArray, sql } from 'drizzle-orm'
import type { PaymentTerms } from '#core/base/day'
import type { Values } from '#core/lists/list'
import { LANGUAGES, languageNamed } from '#core/supplier/language'
import { searchTextOf } from '#core/catalogue/search-text'
import type { Tx } from '../db/client'
import { named, read } from '../db/read'
import { item } from '../db/schema/catalogue'
import { supplier } from '../db/schema/supplier'
import { inParts, orNull, textOf, type ListKeeper, together } from './keeper'

const columnsOf = (v: Values) => ({
  number: v.number ?? '',
  name: v.name ?? '',
  address: v.address ?? '',
  town: v.town ?? '',
  email: orNull(v.email),
  telephone: v.telephone ?? '',
  currency: v.currency ?? '',
  termsKind: (v.terms ?? 'net') as PaymentTerms['kind'],
  termsDays: Number(v.termsDays ?? '30'),
  leadDays: Number(v.leadDays ?? '5'),
  taxNumber: orNull(v.taxNumber),
  freight: orNull(v.freight),
  freightFreeFrom: orNull(v.freightFree),
  minimumOrder: orNull(v.minimumOrder),
  language: languageNamed(v.language ?? ''),
  warning: orNull(v.warning),
  standing: v.standing ?? 'active',
})

/** Suppliers that may be ordered from, and those on hold; what is proposed or refused is no entry yet. */
export const suppliers: ListKeeper = {
  async read(tx) {
    const s = supplier
    const rows = await read(
      tx,
      {
        id: s.id,
        number: s.number,
        name: s.name,
        address: s.address,
        town: s.town,
        email: s.email,
        telephone: s.telephone,
        currency: s.currency,
        terms: sql<string>`${s.termsKind}`,
        termsDays: s.termsDays,
        leadDays: s.leadDays,
        taxNumber: s.taxNumber,
        freight: s.freight,
        freightFree: sql<string | null>`${s.freightFreeFrom}`,
        minimumOrder: s.minimumOrder,
        language: s.language,
        warning: s.warning,
        standing: s.standing,
      },
      sql`from ${s} where ${inArray(s.standing, ['active', 'on hold', 'blocked'])} order by ${s.name}, ${s.number}`,
    )
    return rows.map(({ id, ...r }) => ({
      id,
      values: Object.fromEntries(
        Object.entries({ ...r, language: LANGUAGES[r.language] }).map(([key, value]) => [key, textOf(value)]),
      ),
    }))
  },
  insert: (tx, entries) =>
    inParts(entries, (some) => tx.insert(supplier).values(some.map((e) => ({ id: e.id, ...columnsOf(e.values) })))),
  async update(tx, entries) {
    await together(
      entries.map((e) =>
        tx
          .update(supplier)
          .set(turned(columnsOf(e.values)))
          .where(eq(supplier.id, e.id)),
      ),
    )
    await nameAnew(
      tx,
      entries.map((e) => e.id),
    )
  },
  async remove(tx, id) {
    await tx.delete(supplier).where(eq(supplier.id, id))
  },
}

/**
 * What a row says, with what follows from it: where orders went before, since when it stands so, and that a warning
 * with days gave way to one without.
 */
function turned(c: ReturnType<typeof columnsOf>) {
  const { email, emailBefore, emailChangedAt, standing, standingReason, standingSince, standingUntil } = supplier
  const isMailSame = sql`${email} is not distinct from ${c.email}`
  const isStandingSame = sql`${standing} = ${c.standing}`
  const isWarningSame = sql`${supplier.warning} is not distinct from ${c.warning}`
  return {
    ...c,
    version: sql`${supplier.version} + 1`,
    emailBefore: sql`case when ${isMailSame} then ${emailBefore} else ${email} end`,
    emailChangedAt: sql`case when ${isMailSame} then ${emailChangedAt} else now() end`,
    standingReason: sql`case when ${isStandingSame} then ${standingReason} else '' end`,
    standingSince: sql`case when ${isStandingSame} then ${standingSince} else now() end`,
    standingUntil: sql`case when ${isStandingSame} then ${standingUntil} end`,
    datedWarning: sql`case when ${isWarningSame} then ${supplier.datedWarning} end`,
    warningFrom: sql`case when ${isWarningSame} then ${supplier.warningFrom} end`,
    warningUntil: sql`case when ${isWarningSame} then ${supplier.warningUntil} end`,
  }
}

/** Items are found by their supplier's name: those of suppliers that are called otherwise now are written anew. */
async function nameAnew(tx: Tx, supplierIds: readonly string[]): Promise<void> {
  const i = named(item, 'i')
  const s = named(supplier, 's')
  const stale = await read(
    tx,
    {
      id: i.id,
      name: i.name,
      number: i.number,
      supplierPart: i.supplierPart,
      description: i.description,
      supplier: s.name,
    },
    sql`from ${i} join ${s} on ${s.id} = ${i.supplierId}
      where ${s.id} = any(${sql.param([...supplierIds])}::uuid[])
        and position(lower(${s.name}) in ${i.searchText}) = 0`,
  )
  await together(
    stale.map(({ id, ...it }) =>
      tx
        .update(item)
        .set({ searchText: searchTextOf(it) })
        .where(eq(item.id, id)),
    ),
  )
}
