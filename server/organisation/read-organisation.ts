import type { OrganisationView } from '#shared/contract/organisation'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { sayNumber } from '../settings/store'
import { findOrganisationVersion, listPeriods, listSeries } from './organisation-store'

/** Who we are and how we count, with every fiscal year and the numbers that come next. */
export async function readOrganisation({ tx, now }: Context): Promise<OrganisationView> {
  const o = await requireOrganisation(tx)
  const years = new Map<number, OrganisationView['years'][number]['periods']>()
  for (const { year, ...p } of await listPeriods(tx, now)) years.set(year, [...(years.get(year) ?? []), p])
  return {
    version: await findOrganisationVersion(tx),
    name: o.name,
    address: o.address,
    letterhead: o.letterhead,
    mailFrom: o.mailFrom,
    tolerancePercent: o.orderTolerancePercent,
    toleranceAmount: o.orderToleranceAmount,
    secondFactorFor: o.secondFactorFor,
    kept: o.kept,
    timeZone: o.timeZone,
    baseCurrency: o.baseCurrency,
    fiscalStartMonth: o.fiscalStartMonth,
    years: [...years].map(([year, periods]) => ({ year, periods })),
    series: (await listSeries(tx)).map((s) => ({
      series: s.series,
      year: s.year,
      next: sayNumber(s.series, s.year, s.last + 1),
    })),
  }
}
