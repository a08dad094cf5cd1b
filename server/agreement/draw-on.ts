import { reachesShare } from '#core/agreement/ceiling'
import { add, zero, type Money } from '#core/base/money'
import type { Context } from '../context'
import { tellPerson } from '../people/tell-person'
import { drawnOn, findAgreement } from './reads'
import { moveDrawn } from './store'

/**
 * Counts what an order draws on an agreement, below nothing where it draws less than before; that there is room was
 * seen under its lock. Its keeper hears where this brings it to its warning share.
 */
export async function drawOn(ctx: Context, agreementId: string, amount: Money): Promise<void> {
  const row = await findAgreement(ctx.tx, agreementId, true)
  if (row === null) throw new Error('an order draws on an agreement that is not there')
  await moveDrawn(ctx.tx, agreementId, amount.amount)
  const of = drawnOn(row, zero(row.currency))
  if (of.ceiling === null || !reachesShare(of, amount)) return
  const told = { code: 'agreement-share' as const, agreement: row.number, name: row.name, supplier: row.supplier }
  await tellPerson(
    ctx,
    row.keeperId,
    { kind: 'agreement', id: row.id },
    { ...told, drawn: add(of.drawn, amount), ceiling: of.ceiling },
    { path: `/agreements/${row.id}` },
  )
}
