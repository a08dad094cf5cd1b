import { addDays, dayOf, fiscalPeriod, type Day } from '#core/base/day'
import type { Context } from '../server/context'
import { keepJob } from '../server/job/keep-job'
import { raiseParts } from '../server/job/raise-parts'
import { idOf } from './ids'
import { budgetLineId } from './world/budgets'
import { ITEM_ROWS } from './world/catalogue'
import { personId } from './world/people'

type Needed =
  | { readonly part: string; readonly quantity: number }
  | { readonly text: string; readonly quantity: number; readonly unit?: string; readonly estimate?: string }

interface Planned {
  readonly job: string
  readonly by: string
  readonly people: readonly string[]
  /** Days from today. */
  readonly from: number
  readonly until: number
  readonly department: string
  readonly account: string
  readonly needs: readonly Needed[]
  /** How many of the first parts are on a draft already. */
  readonly raised: number
}

const PLANS: readonly Planned[] = [
  {
    job: 'J-101',
    by: 'Owen Marsh',
    people: ['Owen Marsh', 'Rosa Castell'],
    from: 12,
    until: 40,
    department: 'Water Systems',
    account: '610',
    needs: [
      { part: 'CP-BRG-P4', quantity: 4 },
      { part: 'CP-CPL-38', quantity: 6 },
      { part: 'CP-SSK-28', quantity: 6 },
      { part: 'CP-GS-25', quantity: 24 },
      { part: 'ST-HC-60', quantity: 20 },
      { text: 'Base plate for pump P5, galvanised', quantity: 1, estimate: '340' },
      { text: 'Take away the old pumps', quantity: 1, unit: 'E48', estimate: '180' },
    ],
    raised: 2,
  },
  {
    job: 'J-103',
    by: 'Jonas Abara',
    people: ['Jonas Abara'],
    from: 60,
    until: 150,
    department: 'Exhibits Workshop',
    account: '632',
    needs: [
      { text: 'Acrylic cylinder, 1.2 m, 25 mm', quantity: 1, estimate: '4200' },
      { text: 'Round flow insert, made to measure', quantity: 1, estimate: '860' },
      { part: 'CP-UV-80A', quantity: 4 },
      { part: 'ST-HC-60', quantity: 12 },
      { text: 'Blue light panel, dimmable', quantity: 3, estimate: '210' },
    ],
    raised: 0,
  },
]

const partId = (job: string, at: number): string => idOf('job part', `${job} ${at}`)

/** What two jobs need, who is at work on them, and what of it is on a draft already. */
export async function planJobs(
  as: <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>,
  now: Date,
  timeZone: string,
): Promise<void> {
  const today: Day = dayOf(now, timeZone)
  const { year } = fiscalPeriod(today, 4)
  for (const p of PLANS) {
    const parts = p.needs.map((n, at) => {
      const item = 'part' in n ? ITEM_ROWS.find((i) => i.supplierPart === n.part) : undefined
      return {
        id: partId(p.job, at),
        itemId: item?.id ?? null,
        description: item?.name ?? ('text' in n ? n.text : ''),
        quantity: String(n.quantity),
        unit: item?.unit ?? ('text' in n ? (n.unit ?? 'H87') : 'H87'),
        estimate: 'text' in n ? (n.estimate ?? null) : (item?.prices[0]?.unitPrice ?? null),
      }
    })
    const id = idOf('job', p.job)
    const plan = {
      startsOn: addDays(today, p.from),
      endsOn: addDays(today, p.until),
      shipToId: null,
      budgetLineId: budgetLineId(p.department, p.account, year),
      people: p.people.map(personId),
      parts,
    }
    const { version } = await as(p.by, now, (ctx) => keepJob(ctx, id, 0, plan))
    if (p.raised > 0)
      await as(p.by, now, (ctx) =>
        raiseParts(
          ctx,
          id,
          version,
          parts.slice(0, p.raised).map((x) => x.id),
        ),
      )
  }
}
