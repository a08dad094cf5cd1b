import { randomUUID } from 'node:crypto'
import { checkTaxNumber } from '#core/supplier/tax-number'
import { dayOf, fiscalPeriod } from '#core/base/day'
import { isCurrency } from '#core/base/currency'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { forbidden, invalid, refused } from '../http/problem'
import { listHolders } from '../people/person-reads'
import { tellPerson } from '../people/tell-person'
import { requireOrganisation } from '../settings/reads'
import { takeNumber } from '../settings/store'
import { findAlike } from './find-alike'
import { findSupplier, type SupplierRow } from './reads'
import { insertSupplier } from './store'

/** What is said of a supplier that is not there yet. */
export interface Proposal {
  readonly name: string
  readonly town: string
  readonly address: string
  readonly email: string
  readonly telephone: string
  readonly taxNumber: string
  readonly currency: string
  readonly note: string
}

/** Names a new supplier: refused, proposed to finance, or there at once, as the organisation's policy says. */
export async function proposeSupplier(ctx: Context, p: Proposal): Promise<SupplierRow> {
  const { newSuppliers, timeZone, fiscalStartMonth } = await requireOrganisation(ctx.tx)
  const finance = (await listHolders(ctx.tx, 'finance', dayOf(ctx.now, timeZone))).filter((f) => f.id !== ctx.actor.id)
  if (newSuppliers === 'nobody')
    throw forbidden(`New suppliers are entered by finance only; ask ${finance[0]?.name ?? 'an administrator'}.`)
  if (!isCurrency(p.currency))
    throw invalid('This currency does not exist.', [{ field: 'currency', message: 'not a currency' }])
  if (checkTaxNumber(p.taxNumber) === 'wrong')
    throw invalid('This tax number has a wrong check digit: one of its characters is mistyped.', [
      { field: 'taxNumber', message: 'has a wrong check digit' },
    ])
  const same = (await findAlike(ctx, p)).find((a) => a.why.includes('same tax number'))
  if (same !== undefined)
    throw refused(
      [`${same.name} (${same.number}) has this tax number already; choose it instead.`],
      { alike: same.id },
      'same-supplier',
    )
  const id = randomUUID()
  const standing = newSuppliers === 'create' ? ('active' as const) : ('proposed' as const)
  const number = await takeNumber(ctx.tx, 'SUP', fiscalPeriod(dayOf(ctx.now, timeZone), fiscalStartMonth).year)
  await insertSupplier(ctx.tx, {
    id,
    number,
    standing,
    proposedById: ctx.actor.id,
    proposedAt: ctx.now,
    ...p,
    email: p.email === '' ? null : p.email,
    taxNumber: p.taxNumber === '' ? null : p.taxNumber,
  })
  await appendEvent(ctx, {
    type: standing === 'proposed' ? 'proposed' : 'created',
    subjectKind: 'supplier',
    subjectId: id,
    after: { name: p.name, taxNumber: p.taxNumber },
  })
  if (standing === 'proposed') {
    for (const f of finance)
      await tellPerson(
        ctx,
        f.id,
        { kind: 'supplier', id },
        { code: 'supplier-proposed', by: ctx.actor.name, name: p.name, town: p.town },
        { path: `/suppliers/${id}` },
      )
  }
  const made = await findSupplier(ctx.tx, id)
  if (made === null) throw new Error('a supplier was not written')
  return made
}
