import Holidays from 'date-holidays'
import { USUAL_RATES } from '#core/base/usual-rates'
import type { FirstStartView } from '#shared/contract/first-start'
import type { Context } from '../context'
import { regionsOf } from './holidays-of'
import { findOneTimeKey } from '../people/one-time-store'
import { isSetUp } from '../settings/reads'

const byName = (a: { name: string }, b: { name: string }) => a.name.localeCompare(b.name, 'en')

/** Whether an organisation is set up; and for whoever brings the key, what there is to choose from. */
export async function readFirstStart({ tx, now }: Context, key: string): Promise<FirstStartView> {
  const [is, opened] = await Promise.all([isSetUp(tx), findOneTimeKey(tx, 'first start', key, now)])
  const opens = !is && opened !== null
  if (!opens) return { opens, isSetUp: is, countries: [], currencies: [], timeZones: [] }
  const regions = new Intl.DisplayNames(['en'], { type: 'region' })
  const money = new Intl.DisplayNames(['en'], { type: 'currency' })
  return {
    opens,
    isSetUp: is,
    countries: Object.keys(new Holidays().getCountries('en'))
      .map((id) => ({ id, name: regions.of(id) ?? id, regions: regionsOf(id), rates: USUAL_RATES[id] ?? null }))
      .sort(byName),
    currencies: Intl.supportedValuesOf('currency')
      .map((id) => ({ id, name: `${money.of(id) ?? id} (${id})` }))
      .sort(byName),
    timeZones: Intl.supportedValuesOf('timeZone'),
  }
}
