import type { z } from 'zod'
import { dec } from '#core/base/decimal'
import { organisationRoutes } from '#shared/contract/organisation'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { invalid, stale } from '../http/problem'
import { notifyChange } from '../live/notify'
import { requireOrganisation } from '../settings/reads'
import { ORGANISATION } from '../settings/organisation-event'
import { lockOrganisation, writeOrganisation } from './organisation-store'

type Said = z.output<typeof organisationRoutes.keepOrganisation.body>

/** Changes who we are and how far orders may exceed what was approved, at the version that was seen. */
export async function keepOrganisation(ctx: Context, seen: number, said: Said): Promise<{ version: number }> {
  const { tx } = ctx
  const version = await lockOrganisation(tx)
  if (version !== seen) throw stale('what stands under Organisation')
  check(said)
  const before = await requireOrganisation(tx)
  const after = {
    name: said.name,
    address: said.address,
    mailFrom: said.mailFrom,
    letterhead: said.letterhead ?? before.letterhead,
    orderTolerancePercent: said.tolerancePercent,
    orderToleranceAmount: said.toleranceAmount,
    secondFactorFor: said.secondFactorFor,
    kept: said.kept ?? before.kept,
  }
  await writeOrganisation(tx, version + 1, after)
  const was = Object.fromEntries(Object.keys(after).map((k) => [k, before[k as keyof typeof after]]))
  await appendEvent(ctx, { type: 'organisation changed', ...ORGANISATION, before: was, after })
  await notifyChange(tx, { kind: 'settings', id: ORGANISATION.subjectId })
  return { version: version + 1 }
}

function check({ tolerancePercent, toleranceAmount }: Said): void {
  const percent = dec(tolerancePercent)
  if (percent.isNegative() || percent.gt(dec('100')) || percent.places() > 2)
    throw invalid('A tolerance lies between 0 and 100 %, with at most two decimals.', [
      { field: 'tolerancePercent', message: 'lies between 0 and 100' },
    ])
  if (dec(toleranceAmount).isNegative() || dec(toleranceAmount).places() > 4)
    throw invalid('A tolerance is an amount of nothing or more.', [
      { field: 'toleranceAmount', message: 'is no amount of nothing or more' },
    ])
}
