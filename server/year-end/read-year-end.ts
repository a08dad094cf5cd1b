import { dayOf, firstDayOf } from '#core/base/day'
import type { YearEndView } from '#shared/contract/year-end'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { linesToEnd } from './lines-to-end'
import { listRuns } from './reads'

/** The first day on which a year may be ended: the one after its last. */
export const endsOn = (year: number, startMonth: number) => firstDayOf(year + 1, 1, startMonth)

/** What is still open of a year's budget lines, with what the next year's have left, and how it was ended before. */
export async function readYearEnd({ tx, now }: Context, year: number): Promise<YearEndView> {
  const { baseCurrency: currency, timeZone, fiscalStartMonth } = await requireOrganisation(tx)
  const from = endsOn(year, fiscalStartMonth)
  const lines = await linesToEnd(tx, year, currency)
  const runs = await listRuns(tx, year)
  return {
    year,
    currency,
    mayEnd: dayOf(now, timeZone) >= from,
    from,
    lines: lines.map(({ open: _, next, ...l }) => ({
      ...l,
      next: next === null ? null : { periods: [...next.periods], span: next.span, mayFallBelow: next.mayFallBelow },
    })),
    runs: runs.map(({ lines: of, ...r }) => ({
      ...r,
      lines: of.map((l) => ({
        ...l,
        reserved: { amount: l.reserved, currency },
        committed: { amount: l.committed, currency },
      })),
    })),
  }
}
