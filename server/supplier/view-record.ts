import { dayOf } from '#core/base/day'
import { may } from '#core/people/rights'
import { LANGUAGES } from '#core/supplier/language'
import { nextStandings, reachOf } from '#core/supplier/record'
import type { SupplierRecord } from '#shared/contract/supplier'
import { CHANNELS, channelNamed } from '../channel/channels'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { findBankChange, findRecord, listContacts, listPapers, listServedCategories } from './record-reads'

/** The record of a supplier; papers and bank details are for whoever keeps suppliers. */
export async function viewRecord(
  ctx: Context,
  id: string,
  known: { readonly address: string; readonly taxNumber: string | null },
): Promise<SupplierRecord> {
  const { tx, now, actor } = ctx
  const r = await findRecord(tx, id)
  if (r === null) throw notFound('This supplier')
  const today = dayOf(now, (await requireOrganisation(tx)).timeZone)
  const mayKeep = may(actor.grants, 'keep suppliers') && r.standing !== 'merged'
  const mayApprove = may(actor.grants, 'approve suppliers') && r.standing !== 'merged'
  const papers = mayKeep ? await listPapers(tx, id) : []
  const change = mayKeep ? await findBankChange(tx, id) : null
  return {
    version: r.version,
    mergedInto: r.mergedIntoId === null ? null : { id: r.mergedIntoId, name: r.mergedInto ?? '' },
    channel: channelNamed(r.channel),
    termsKind: r.termsKind,
    termsDays: r.termsDays,
    leadDays: r.leadDays,
    freight: r.freight,
    freightFreeFrom: r.freightFreeFrom,
    minimumOrder: r.minimumOrder,
    language: LANGUAGES[r.language],
    standingReason: r.standingReason,
    standingSince: r.standingSince,
    standingUntil: r.standingUntil,
    warningMode: r.warningMode,
    datedWarning: r.datedWarning,
    warningFrom: r.warningFrom,
    warningUntil: r.warningUntil,
    contacts: await listContacts(tx, id),
    categories: await listServedCategories(tx, id),
    mayKeep,
    nextStandings: mayApprove ? [...nextStandings(r.standing)] : [],
    papers,
    bank: mayKeep ? r.bank : null,
    bankChange:
      change === null
        ? null
        : {
            details: change.details,
            by: change.by,
            at: change.at,
            toldTo: [...change.toldTo],
            isOwn: change.byId === actor.id,
            mayConfirm: mayApprove && change.byId !== actor.id,
          },
    reach: mayKeep
      ? reachOf({
          standing: r.standing,
          orderAddress: CHANNELS[channelNamed(r.channel)].addressOf(r),
          address: known.address,
          termsDays: r.termsDays,
          taxNumber: known.taxNumber,
          hasBank: r.bank !== null,
          bankWaits: change !== null,
          paperEnds: papers[0]?.validUntil ?? null,
          today,
        })
      : [],
  }
}
