import { dayOf } from '#core/base/day'
import type { AgreementChoices, AgreementHead, AgreementsAsked } from '#shared/contract/agreement'
import { waysOf } from '#shared/words/ways'
import { FIXES_SHORT } from '#shared/words/agreement'
import { listAgreements as readAgreements, listAgreementsWith, type AgreementRow } from '../agreement/reads'
import type { Context } from '../context'
import { asSheet } from '../files/as-sheet'
import type { Cell } from '../files/write-sheet'
import { reservedOf } from '../requisition/reserved-of-agreements'
import { requireOrganisation } from '../settings/reads'
import { agreementChoices, viewAgreement } from './view-agreement'

/** The most agreements that are shown at once, and that a file holds. */
const MOST = 500

/** Agreements that are asked for, with what is drawn, reserved and left of each. */
export async function listAgreements(
  ctx: Context,
  asked: AgreementsAsked,
): Promise<{ agreements: AgreementHead[]; isAll: boolean; choices: AgreementChoices | null }> {
  const today = dayOf(ctx.now, (await requireOrganisation(ctx.tx)).timeZone)
  const found = await readAgreements(ctx.tx, { ...asked, day: today }, MOST + 1)
  const shown = found.slice(0, MOST)
  const reserved = await reservedOf(ctx.tx, await withSiblings(ctx, shown), today)
  const ways = waysOf(ctx.actor.locale)
  return {
    agreements: shown.map((row) => viewAgreement(row, reserved(row), today, ways)),
    isAll: found.length <= MOST,
    choices: await agreementChoices(ctx),
  }
}

/** Some agreements with all others of their suppliers: of several that fit alike none is drawn on. */
export const withSiblings = ({ tx }: Pick<Context, 'tx'>, rows: readonly AgreementRow[]): Promise<AgreementRow[]> =>
  listAgreementsWith(tx, [...new Set(rows.map((r) => r.supplierId))])

/** The same as a file, with plain decimals. */
export async function exportAgreements(
  ctx: Context,
  { as, ...asked }: AgreementsAsked & { readonly as: 'csv' | 'xlsx' },
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const { agreements } = await listAgreements(ctx, asked)
  const table = {
    name: 'Agreements',
    head: [
      ...['Number', 'Name', 'Supplier', 'Begins', 'Ends', 'Stands', 'Fixes', 'Ceiling', 'Drawn', 'Reserved', 'Left'],
      ...['Currency', 'Looked after by'],
    ],
    rows: agreements.map((a): Cell[] => [
      ...[a.number, a.name, a.supplier, a.startsOn, a.endsOn, a.standing, FIXES_SHORT[a.fixes]],
      a.ceiling === null ? '' : { decimal: a.ceiling.amount },
      ...[{ decimal: a.drawn.amount }, { decimal: a.reserved.amount }],
      a.left === null ? '' : { decimal: a.left.amount },
      ...[a.currency, a.keeper],
    ]),
  }
  return asSheet(table, 'agreements', as)
}
