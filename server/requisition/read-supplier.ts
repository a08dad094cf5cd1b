import { may } from '#core/people/rights'
import type { SupplierView } from '#shared/contract/supplier'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { findAlike } from '../supplier/find-alike'
import { findProposal } from '../supplier/reads'
import { seesProposal } from '../supplier/sees-proposal'
import { viewRecord } from '../supplier/view-record'
import { countWaitingRequests } from './page-reads'

/** A supplier; what was said of it as a proposal is for its proposer and whoever approves suppliers. */
export async function readSupplier(ctx: Context, id: string): Promise<SupplierView> {
  const p = await findProposal(ctx.tx, id)
  if (p === null) throw notFound('This supplier')
  const seen = seesProposal(ctx, p)
  const record = await viewRecord(ctx, id, p)
  return {
    ...record,
    id,
    number: p.number,
    name: p.name,
    town: p.town,
    address: p.address,
    email: p.email,
    telephone: p.telephone,
    currency: p.currency,
    standing: p.standing,
    warning: p.warning,
    taxNumber: seen || (record.mayKeep && p.standing !== 'proposed') ? p.taxNumber : null,
    proposedBy: p.proposedBy,
    proposedAt: p.proposedAt,
    note: seen ? p.note : '',
    hasTaxForm: seen && p.taxFormHash !== null,
    alike:
      seen && p.standing === 'proposed'
        ? await findAlike(ctx, { name: p.name, taxNumber: p.taxNumber ?? '', email: p.email ?? '' }, id)
        : [],
    mayDecide:
      p.standing === 'proposed' && may(ctx.actor.grants, 'approve suppliers') && p.proposedById !== ctx.actor.id,
    waitingRequests: await countWaitingRequests(ctx.tx, id),
  }
}
