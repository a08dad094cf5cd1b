import { dayOf, fiscalPeriod } from '#core/base/day'
import { moneyOf } from '#core/base/money'
import { may } from '#core/people/rights'
import type { TransferView } from '#shared/contract/budget'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { listVisibleLines } from './reads'
import { decidesOn } from './transfer-money'
import { listTransfers } from './transfer-reads'

/** Transfers of a year: of lines that somebody holds, that they proposed or decide on; all for who sees all budgets. */
export async function readTransfers(ctx: Context, asked: number | undefined): Promise<{ transfers: TransferView[] }> {
  const { tx, actor, now } = ctx
  const o = await requireOrganisation(tx)
  const year = asked ?? fiscalPeriod(dayOf(now, o.timeZone), o.fiscalStartMonth).year
  const all = may(actor.grants, 'see all budgets')
  const held = (await listVisibleLines(tx, actor.id, all, year, o.baseCurrency)).filter((l) => l.holderId === actor.id)
  const rows = await listTransfers(tx, year, { lineIds: held.map((l) => l.id), personId: actor.id, all })
  return {
    transfers: rows.map(({ deciderId, proposedById, amount, ...t }) => ({
      ...t,
      amount: moneyOf(amount, o.baseCurrency),
      isOwn: proposedById === actor.id,
      decides: t.state === 'proposed' && decidesOn({ proposedById, deciderId }, ctx),
    })),
  }
}
