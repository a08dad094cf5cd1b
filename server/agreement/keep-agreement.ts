import { randomUUID } from 'node:crypto'
import { agreementStanding } from '#core/agreement/fit'
import { isCurrency } from '#core/base/currency'
import { dayOf, fiscalPeriod, type Day } from '#core/base/day'
import { dec } from '#core/base/decimal'
import { isZero, moneyOf } from '#core/base/money'
import type { KeptAgreement } from '#shared/contract/agreement'
import { waysOf } from '#shared/words/ways'
import { appendEvent } from '../audit/store'
import { findItems } from '../catalogue/reads'
import type { Context } from '../context'
import { asSentence } from '../http/as-sentence'
import { invalid, notFound, refused, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { takeNumber } from '../settings/store'
import { findSupplier } from '../supplier/reads'
import { findAgreement, listAgreementItems, type AgreementRow } from './reads'
import * as store from './store'

/** Enters a framework agreement with a supplier; it gets its number. */
export async function addAgreement(
  ctx: Context,
  given: KeptAgreement,
): Promise<{ id: string; number: string; version: number }> {
  const { fiscalStartMonth, today } = await todayOf(ctx)
  await checkAgreement(ctx, given)
  const supplier = await findSupplier(ctx.tx, given.supplierId)
  if (supplier === null)
    throw invalid('This supplier does not exist.', [{ field: 'supplierId', message: 'is unknown' }])
  const id = randomUUID()
  const number = await takeNumber(ctx.tx, 'A', fiscalPeriod(today, fiscalStartMonth).year)
  const row = columnsOf(given, { today, isClosed: false })
  await asSentence(() => store.insertAgreement(ctx.tx, { ...row, id, number }), OF_AGREEMENTS)
  await writeItems(ctx, id, given)
  await appendEvent(ctx, { type: 'agreement added', subjectKind: 'agreement', subjectId: id, after: { ...given } })
  await notifyChange(ctx.tx, { kind: 'settings', id })
  return { id, number, version: 1 }
}

/**
 * Changes what an agreement says. Its supplier stays, as what it fixes its currency by does once something is drawn;
 * a ceiling below what is drawn is refused.
 */
export async function keepAgreement(
  ctx: Context,
  id: string,
  version: number,
  given: KeptAgreement,
): Promise<{ version: number }> {
  const before = await requireAgreement(ctx, id, version)
  await checkAgreement(ctx, given)
  const { today } = await todayOf(ctx)
  const ways = waysOf(ctx.actor.locale)
  const drawn = moneyOf(before.drawn, before.currency)
  const wrong: string[] = []
  if (given.supplierId !== before.supplierId)
    wrong.push(`It is an agreement with ${before.supplier}: with another supplier another one is made.`)
  if (given.currency !== before.currency && !isZero(drawn))
    wrong.push(`It is drawn on in ${before.currency} already, and stays in it.`)
  if (given.ceiling !== null && given.currency === before.currency && dec(given.ceiling).lt(dec(before.drawn)))
    wrong.push(`${ways.money(drawn)} are drawn already: its ceiling cannot be less.`)
  if (wrong.length > 0) throw refused(wrong)
  const items = await listAgreementItems(ctx.tx, id)
  await asSentence(() => store.updateAgreement(ctx.tx, id, columnsOf(given, { today, ...before })), OF_AGREEMENTS)
  await writeItems(ctx, id, given)
  await appendEvent(ctx, {
    type: 'agreement kept',
    subjectKind: 'agreement',
    subjectId: id,
    before: { ...before, items },
    after: { ...given },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id })
  return { version: before.version + 1 }
}

/** Closes an agreement, so that nothing draws on it any more, or opens it again. */
export async function closeAgreement(
  ctx: Context,
  id: string,
  version: number,
  isClosed: boolean,
): Promise<{ version: number }> {
  const before = await requireAgreement(ctx, id, version)
  if (before.isClosed === isClosed) return { version: before.version }
  const { today } = await todayOf(ctx)
  await store.setClosed(ctx.tx, id, { isClosed, isInForce: isInForce({ ...before, isClosed }, today) })
  const type = isClosed ? 'agreement closed' : 'agreement opened'
  await appendEvent(ctx, { type, subjectKind: 'agreement', subjectId: id })
  await notifyChange(ctx.tx, { kind: 'settings', id })
  return { version: before.version + 1 }
}

const OF_AGREEMENTS = { namesNothing: 'It names a supplier or a person that does not exist.' }

const isInForce = (of: Pick<AgreementRow, 'isClosed' | 'startsOn' | 'endsOn'>, today: Day): boolean =>
  agreementStanding(of, today) === 'in force'

async function todayOf({ tx, now }: Context): Promise<{ fiscalStartMonth: number; today: Day }> {
  const { timeZone, fiscalStartMonth } = await requireOrganisation(tx)
  return { fiscalStartMonth, today: dayOf(now, timeZone) }
}

/** An agreement, its row locked, at the version that was seen. */
async function requireAgreement(ctx: Context, id: string, version: number): Promise<AgreementRow> {
  const found = await findAgreement(ctx.tx, id, true)
  if (found === null) throw notFound('This agreement')
  if (found.version !== version) throw stale(`the agreement ${found.number}`)
  return found
}

/** Refuses what cannot be meant, each with the field at which it is put right. */
async function checkAgreement({ tx }: Context, given: KeptAgreement): Promise<void> {
  const wrong: { field: string; message: string }[] = []
  if (!isCurrency(given.currency)) wrong.push({ field: 'currency', message: 'is not a currency' })
  if (given.endsOn < given.startsOn) wrong.push({ field: 'endsOn', message: 'is before it begins' })
  if (given.renewOn !== null && given.renewOn > given.endsOn)
    wrong.push({ field: 'renewOn', message: 'is after its end' })
  if (given.fixes === 'sum' && given.ceiling === null)
    wrong.push({ field: 'ceiling', message: 'is missing: an agreement on a sum has one' })
  if (given.fixes === 'sum' && given.items.length > 0)
    wrong.push({ field: 'items', message: 'stand in an agreement that fixes items' })
  if (given.fixes === 'items' && given.items.length === 0)
    wrong.push({ field: 'items', message: 'are missing: name what stands in it' })
  const ids = given.items.map((i) => i.itemId)
  const items = ids.length === 0 ? [] : await findItems(tx, ids)
  if (items.length < ids.length) wrong.push({ field: 'items', message: 'name what is not in the catalogue' })
  for (const item of items)
    if (item.supplierId !== given.supplierId)
      wrong.push({ field: 'items', message: `name “${item.name}”, which ${item.supplier} sells` })
  const [first] = wrong
  if (first !== undefined)
    throw invalid(`The agreement cannot be kept: ${SAID[first.field] ?? first.field} ${first.message}.`, wrong)
}

/** How the fields are called in a sentence. */
const SAID: Readonly<Record<string, string>> = {
  currency: 'its currency',
  endsOn: 'its end',
  renewOn: 'the day of its renewal',
  ceiling: 'its ceiling',
  items: 'its items',
}

const columnsOf = (
  given: KeptAgreement,
  { today, isClosed }: { readonly today: Day; readonly isClosed: boolean },
): store.KeptAgreement => ({
  name: given.name.trim(),
  theirNumber: given.theirNumber.trim(),
  supplierId: given.supplierId,
  currency: given.currency,
  startsOn: given.startsOn,
  endsOn: given.endsOn,
  fixes: given.fixes,
  ceiling: given.ceiling,
  warnPercent: given.warnPercent,
  warnDays: given.warnDays,
  renewOn: given.renewOn,
  termsKind: given.terms?.kind ?? null,
  termsDays: given.terms?.days ?? null,
  departmentIds: [...new Set(given.departmentIds)],
  note: given.note.trim(),
  keeperId: given.keeperId,
  isInForce: isInForce({ ...given, isClosed }, today),
})

const writeItems = (ctx: Context, id: string, given: KeptAgreement): Promise<void> =>
  store.writeAgreementItems(ctx.tx, id, given.items)
