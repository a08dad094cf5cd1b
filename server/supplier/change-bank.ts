import { dayOf } from '#core/base/day'
import { addressesToTell, checkBank, plainBank, type BankDetails } from '#core/supplier/bank'
import { sayBankTrouble } from '#shared/words/supplier'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { forbidden, invalid, notFound, refused } from '../http/problem'
import { notifyChange } from '../live/notify'
import { postMails } from '../mail/post-mail'
import { listHolders } from '../people/person-reads'
import { tellPeople } from '../people/tell-person'
import { requireOrganisation } from '../settings/reads'
import { findBankChange, type BankChangeRow } from './record-reads'
import { dropBankChange, layBankChange, setBank } from './record-store'
import { requireRecord } from './require-record'

/**
 * Asks for other bank details: they hold once somebody else of finance confirms them. The supplier is told at once, at
 * the address that it had before where that was changed lately.
 */
export async function askBankChange(ctx: Context, id: string, given: BankDetails): Promise<{ toldTo: string[] }> {
  const { tx, now } = ctx
  const wrong = checkBank(given)
  if (wrong.length > 0)
    throw invalid(wrong.map(sayBankTrouble).join(' '), [{ field: 'number', message: wrong.join(', ') }])
  const record = await requireRecord(ctx, id)
  const details = plainBank(given)
  if (JSON.stringify(plainBank(record.bank ?? NOWHERE)) === JSON.stringify(details))
    throw refused([`${record.name} is paid to this account already.`])
  const { name: organisation, timeZone } = await requireOrganisation(tx)
  const emailChangedAt = record.emailChangedAt === null ? null : new Date(record.emailChangedAt)
  const toldTo = addressesToTell({ ...record, emailChangedAt }, now)
  await layBankChange(tx, id, { details, byId: ctx.actor.id, at: now, toldTo })
  await appendEvent(ctx, {
    type: 'bank change asked for',
    subjectKind: 'supplier',
    subjectId: id,
    before: { bank: record.bank },
    after: { bank: details, toldTo },
  })
  await postMails(
    tx,
    toldTo.map((toAddress) => ({
      personId: null,
      toName: record.name,
      toAddress,
      told: { code: 'bank-change-asked' as const, organisation, supplier: record.name, ends: details.number.slice(-4) },
      path: null,
      aboutKind: 'supplier',
      aboutId: id,
      notBefore: now,
      now,
    })),
  )
  const others = (await listHolders(tx, 'finance', dayOf(now, timeZone))).filter((f) => f.id !== ctx.actor.id)
  await tellPeople(
    ctx,
    others.map((f) => ({
      personId: f.id,
      about: { kind: 'supplier', id },
      told: { code: 'bank-change-waits' as const, by: ctx.actor.name, supplier: record.name },
      path: `/suppliers/${id}`,
    })),
  )
  await notifyChange(tx, { kind: 'settings', id })
  return { toldTo }
}

const NOWHERE: BankDetails = { holder: '', number: '', bank: '' }

async function requireChange(ctx: Context, id: string): Promise<BankChangeRow> {
  const change = await findBankChange(ctx.tx, id)
  if (change === null) throw notFound('This change')
  return change
}

/** Puts the details in force that somebody else asked for, as they were seen: those of `number`. */
export async function confirmBankChange(ctx: Context, id: string, number: string): Promise<void> {
  const record = await requireRecord(ctx, id)
  const change = await requireChange(ctx, id)
  if (change.byId === ctx.actor.id)
    throw forbidden('Nobody confirms bank details that they asked for themselves; somebody else of finance does.')
  if (change.details.number !== number)
    throw refused(['Other details were asked for meanwhile; look at them first.'], {}, 'stale')
  await setBank(ctx.tx, id, change.details)
  await dropBankChange(ctx.tx, id)
  await appendEvent(ctx, {
    type: 'bank change confirmed',
    subjectKind: 'supplier',
    subjectId: id,
    before: { bank: record.bank },
    after: { bank: change.details, askedBy: change.by },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id })
}

/** Ends a change that waits: whoever asked for it, and whoever may confirm it. */
export async function endBankChange(ctx: Context, id: string, mayConfirm: boolean): Promise<void> {
  await requireRecord(ctx, id)
  const change = await requireChange(ctx, id)
  if (change.byId !== ctx.actor.id && !mayConfirm)
    throw forbidden('Whoever asked for it takes it back, or finance refuses it.')
  await dropBankChange(ctx.tx, id)
  await appendEvent(ctx, {
    type: 'bank change ended',
    subjectKind: 'supplier',
    subjectId: id,
    before: { bank: change.details, askedBy: change.by },
  })
  await notifyChange(ctx.tx, { kind: 'settings', id })
}
