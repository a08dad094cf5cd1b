import { addDays, businessDaysBetween, dayOf } from '#core/base/day'
import { moneyOf } from '#core/base/money'
import type { WaitingView } from '#shared/contract/waiting'
import { sayHeld } from '#shared/words/waiting'
import { requireVersion } from '../approval/reads'
import type { Context } from '../context'
import { findPersonName } from '../people/person-reads'
import { listHolidays, requireOrganisation } from '../settings/reads'
import { pageOf, seenDocuments } from './document-reads'
import { listHeld, listWaitingSteps } from './waiting-reads'

const MOST = 500

/** What waits anywhere. Of what the reader may not see besides, its number and for whom it waits. */
export async function readWaiting(ctx: Context, words: string): Promise<WaitingView> {
  const { tx, now } = ctx
  const { timeZone } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  const rows = await listWaitingSteps(tx, words, MOST)
  const held = words.trim() === '' ? await listHeld(tx) : []
  const seen = await seenDocuments(
    ctx,
    [...rows, ...held].map((r) => r.documentId),
  )
  const first = rows.map((r) => dayOf(new Date(r.since), timeZone)).sort()[0] ?? today
  const holidays = new Set(await listHolidays(tx, first, addDays(today, 1)))
  const { form } = await requireVersion(tx, now, today)
  return {
    steps: rows.map((r) => ({
      seatId: r.seatId,
      number: r.number,
      document: seen.has(r.documentId)
        ? {
            ...{ id: r.documentId, path: pageOf(r), title: r.title, owner: r.owner, currency: r.currency },
            amount: moneyOf(r.amount, r.currency).amount,
          }
        : null,
      ...{ name: r.name, forName: r.forName, since: r.since, remindedAt: r.remindedAt, isLate: r.isLate },
      days: businessDaysBetween(dayOf(new Date(r.since), timeZone), today, holidays),
    })),
    total: rows[0]?.count ?? 0,
    held: held.map((h) => ({
      number: h.number,
      ...(seen.has(h.documentId)
        ? { id: h.documentId, path: pageOf(h), title: h.title }
        : { id: null, path: null, title: null }),
      why: sayHeld(h.held),
    })),
    skipTo: form.maySkip && form.fallbackId !== null ? await findPersonName(tx, form.fallbackId) : null,
  }
}
