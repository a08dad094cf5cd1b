import { dayOf } from '#core/base/day'
import { warningOn, type DatedWarning } from '#core/supplier/record'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { invalid } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { raiseList } from '../settings/store'
import { listContacts, type ContactRow } from './record-reads'
import { setWarning, writeContacts, type WrittenWarning } from './record-store'
import { requireRecord } from './require-record'

/** Keeps who is spoken to at a supplier, and of what people are warned on which days. */
export async function keepRecord(
  ctx: Context,
  id: string,
  version: number,
  given: { readonly contacts: readonly ContactRow[]; readonly warning: DatedWarning },
): Promise<{ version: number }> {
  const { tx, now } = ctx
  const { warning } = given
  if (warning.from !== null && warning.until !== null && warning.until < warning.from)
    throw invalid('The warning ends before it begins.', [{ field: 'warning', message: 'ends before it begins' }])
  const record = await requireRecord(ctx, id, version)
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  const before = { contacts: await listContacts(tx, id), warning: writtenOf(record) }
  const after = { contacts: given.contacts, warning: written(warning, today) }
  await writeContacts(tx, id, given.contacts)
  await setWarning(tx, id, after.warning)
  if (after.warning.warning !== record.warning) await raiseList(tx, 'suppliers')
  await appendEvent(ctx, { type: 'record kept', subjectKind: 'supplier', subjectId: id, before, after })
  await notifyChange(tx, { kind: 'settings', id })
  return { version: version + 1 }
}

/** How a warning is kept: what is said today, and apart from it what has days. */
export function written(w: DatedWarning, today: string): WrittenWarning {
  const isDated = (w.from !== null || w.until !== null) && w.text.trim() !== ''
  return {
    warning: warningOn(w, today),
    warningMode: w.mode,
    datedWarning: isDated ? w.text.trim() : null,
    warningFrom: isDated ? w.from : null,
    warningUntil: isDated ? w.until : null,
  }
}

const writtenOf = (r: WrittenWarning): WrittenWarning => ({
  warning: r.warning,
  warningMode: r.warningMode,
  datedWarning: r.datedWarning,
  warningFrom: r.warningFrom,
  warningUntil: r.warningUntil,
})
