import { addDays, dayOf } from '#core/base/day'
import { REMIND_DAYS } from '#core/supplier/record'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { notifyChange } from '../live/notify'
import { listHolders } from '../people/person-reads'
import { tellPeople } from '../people/tell-person'
import { isSetUp, requireOrganisation } from '../settings/reads'
import { raiseList } from '../settings/store'
import { written } from '../supplier/keep-record'
import { findRecord, listEndingPapers, listTurning } from '../supplier/record-reads'
import { setReminded, setWarning, writeStanding } from '../supplier/record-store'

/** What the calendar does to suppliers: holds end, dated warnings begin and end, and papers that end are told of. */
export async function keepSuppliers(ctx: Context): Promise<void> {
  const { tx, now } = ctx
  if (!(await isSetUp(tx))) return
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  const turning = await listTurning(tx, today)
  for (const { id } of turning) await turn(ctx, id, today)
  if (turning.length > 0) await raiseList(tx, 'suppliers')
  await remind(ctx, today)
}

async function turn(ctx: Context, id: string, today: string): Promise<void> {
  const { tx, now } = ctx
  const r = await findRecord(tx, id, true)
  if (r === null) return
  if (r.standing === 'on hold' && r.standingUntil !== null && r.standingUntil < today) {
    await writeStanding(tx, id, 'active', { reason: '', since: now, until: null })
    await appendEvent(ctx, {
      type: 'standing changed',
      subjectKind: 'supplier',
      subjectId: id,
      before: { standing: r.standing, reason: r.standingReason, until: r.standingUntil },
      after: { standing: 'active', reason: '', until: null },
    })
  }
  if (r.datedWarning !== null)
    await setWarning(
      tx,
      id,
      keptUntilOver(
        written({ text: r.datedWarning, mode: r.warningMode, from: r.warningFrom, until: r.warningUntil }, today),
        today,
      ),
    )
  await notifyChange(tx, { kind: 'settings', id })
}

/** A warning whose last day is past is forgotten with its days. */
function keptUntilOver<W extends ReturnType<typeof written>>(w: W, today: string) {
  return w.warningUntil !== null && w.warningUntil < today
    ? { ...w, datedWarning: null, warningFrom: null, warningUntil: null }
    : w
}

/** Buyers and finance hear once of each paper that ends soon. */
async function remind(ctx: Context, today: string): Promise<void> {
  const ending = await listEndingPapers(ctx.tx, addDays(today, REMIND_DAYS))
  if (ending.length === 0) return
  const [finance, buyers] = [await listHolders(ctx.tx, 'finance', today), await listHolders(ctx.tx, 'buyer', today)]
  const readers = new Set([...finance, ...buyers].map((p) => p.id))
  await tellPeople(
    ctx,
    ending.flatMap((e) =>
      [...readers].map((personId) => ({
        personId,
        about: { kind: 'supplier', id: e.supplierId },
        told: { code: 'paper-ends' as const, supplier: e.supplier, paper: e.name, day: e.validUntil ?? today },
        path: `/suppliers/${e.supplierId}`,
      })),
    ),
  )
  for (const e of ending) await setReminded(ctx.tx, e.id, ctx.now)
}
