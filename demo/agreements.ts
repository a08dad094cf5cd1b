import { addDays, dayOf, type Day } from '#core/base/day'
import { dec, HUNDRED, ONE } from '#core/base/decimal'
import type { AgreementFixes } from '#core/agreement/fit'
import { addAgreement } from '../server/agreement/keep-agreement'
import { listOrderAgreements, setOrderAgreement } from '../server/order/choose-agreement'
import { findOrder } from '../server/order/reads'
import { listOrders } from '../server/order/list-orders'
import type { Context } from '../server/context'
import { idOf } from './ids'
import { ITEM_ROWS } from './world/catalogue'
import { personId } from './world/people'

interface Agreed {
  readonly supplier: string
  readonly theirNumber: string
  readonly name: string
  readonly fixes: AgreementFixes
  /** Days from today. */
  readonly from: number
  readonly until: number
  readonly renewIn: number | null
  /** What is drawn of it, in percent; null: it has no ceiling. */
  readonly share: number | null
  readonly ceiling?: string
  readonly department?: string
  readonly keeper: string
  readonly note: string
}

const AGREED: readonly Agreed[] = [
  {
    ...{
      supplier: 'Brackwater Salts',
      theirNumber: 'BS-F-26/114',
      name: 'Sea salt for the exhibits, the year through',
    },
    ...{ fixes: 'sum', from: -200, until: 165, renewIn: 60, share: 93, keeper: 'Leonie Farrow' },
    note: 'The second half of the volume discount is due at 90 %: ask Brackwater for it.',
  },
  {
    ...{ supplier: 'Northmole Water', theirNumber: 'NM 4471', name: 'Filters and what belongs to them' },
    ...{ fixes: 'items', from: -340, until: 25, renewIn: -5, share: null, keeper: 'Leonie Farrow' },
    note: '',
  },
  {
    ...{ supplier: 'Corrigan Pumps', theirNumber: 'CP-2026-031', name: 'Pumps and their parts' },
    ...{
      fixes: 'sum',
      from: -120,
      until: 245,
      renewIn: null,
      share: null,
      ceiling: '20000.00',
      keeper: 'Harriet Voss',
    },
    note: '',
  },
  {
    ...{ supplier: 'Larkfield Veterinary', theirNumber: 'LV/HO/3', name: 'Syringes and dressings of the clinic' },
    ...{ fixes: 'sum', from: 30, until: 395, renewIn: null, share: null, ceiling: '6000.00', keeper: 'Leonie Farrow' },
    ...{ department: 'Animal Care', note: 'Follows on the tender of this autumn.' },
  },
]

/** Framework agreements as Hallamere keeps them: one nearly drawn, one that ends soon, one half drawn, one to come. */
export async function enterAgreements(
  as: <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>,
  now: Date,
  timeZone: string,
): Promise<void> {
  const today: Day = dayOf(now, timeZone)
  for (const a of AGREED) {
    const begins = addDays(today, a.from)
    const orders = await as('Leonie Farrow', now, async (ctx) => {
      const all = await listOrders(ctx, { whose: 'own', state: 'issued', words: a.supplier, limit: 100 })
      const found = await Promise.all(all.orders.map((o) => findOrder(ctx.tx, o.id)))
      return found.flatMap((o) => (o === null || o.supplier !== a.supplier || o.currency !== 'EUR' ? [] : [o]))
    })
    const drawn = orders.reduce((sum, o) => sum.plus(dec(o.net ?? '0')), dec('0'))
    const items = ITEM_ROWS.filter((i) => i.supplierId === idOf('supplier', a.supplier))
    const { id } = await as(a.keeper, now, (ctx) =>
      addAgreement(ctx, {
        ...{ name: a.name, theirNumber: a.theirNumber, supplierId: idOf('supplier', a.supplier), currency: 'EUR' },
        ...{ startsOn: begins, endsOn: addDays(today, a.until), fixes: a.fixes, note: a.note, terms: null },
        ceiling: a.share === null ? (a.ceiling ?? null) : ceilingOf(drawn.toFixed(), a.share),
        warnPercent: '90',
        warnDays: 60,
        renewOn: a.renewIn === null ? null : addDays(today, a.renewIn),
        departmentIds: a.department === undefined ? [] : [idOf('department', a.department)],
        keeperId: personId(a.keeper),
        items:
          a.fixes === 'sum'
            ? []
            : items.map((i, at) => ({
                itemId: i.id,
                // Of one the catalogue does not have the agreed price yet.
                unitPrice:
                  at === 0
                    ? dec(i.prices[0]?.unitPrice ?? '1')
                        .times(dec('0.9'))
                        .toPlaces(2)
                        .toFixed()
                    : null,
              })),
      }),
    )
    if (a.from > 0) continue
    for (const o of orders)
      await as('Leonie Farrow', now, async (ctx) => {
        const { choices } = await listOrderAgreements(ctx, o.id)
        if (choices.some((c) => c.id === id && c.reasons.length === 0))
          await setOrderAgreement(ctx, o.id, o.version, id)
      })
  }
}

/** The ceiling of which an amount is about so many percent, in full hundreds. */
function ceilingOf(drawn: string, percent: number): string {
  const hundreds = dec(drawn).dividedBy(dec(String(percent)))
  return hundreds.toPlaces(0).plus(ONE).times(HUNDRED).toFixed()
}
