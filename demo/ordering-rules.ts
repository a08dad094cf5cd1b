import { dayOf } from '#core/base/day'
import type { KeptRule } from '#shared/contract/ordering'
import type { Db } from '../server/db/client'
import type { Context } from '../server/context'
import { addRule, moveRule } from '../server/ordering/keep-rule'
import { runRule } from '../server/ordering/run-rule'
import { setRanOn } from '../server/ordering/store'
import { idOf } from './ids'
import { personId } from './world/people'

type As = <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>

const FORM: KeptRule['form'] = {
  ...{ kinds: [], departmentIds: [], categoryIds: [], supplierIds: [], price: 'agreed', upTo: '1000' },
  ...{ time: { each: 'day', hour: 7 }, mostRequests: 4, windowDays: 14, byDepartment: false },
  ...{ choose: 'cheapest', waitFor: null },
}

/**
 * Ordering by itself at Hallamere: pump and parts under their agreement, every morning, with what today's run left;
 * and a rule for the laboratory that waits for a second person.
 */
export async function keepOrderingRules(db: Db, as: As, now: Date, timeZone: string): Promise<void> {
  const leonie = personId('Leonie Farrow')
  const pumps = await as('Harriet Voss', now, async (ctx) => {
    const { id } = await addRule(ctx, {
      ...{ name: 'Pump parts under their agreement', buyerId: leonie },
      form: { ...FORM, supplierIds: [idOf('supplier', 'Corrigan Pumps')] },
    })
    await moveRule(ctx, id, 1, 'ask')
    return id
  })
  await as('Greta Molin', now, (ctx) => moveRule(ctx, pumps, 2, 'confirm'))
  await as('Harriet Voss', now, async (ctx) => {
    await setRanOn(ctx.tx, pumps, dayOf(now, timeZone))
    const { id } = await addRule(ctx, {
      ...{ name: 'Small things for the laboratory', buyerId: leonie },
      form: {
        ...FORM,
        ...{ price: 'catalogue', upTo: '250', time: { each: 'approval' }, mostRequests: null, windowDays: null },
        ...{ supplierIds: [idOf('supplier', 'Fennmark Laboratory Supply')], waitFor: { value: '75', days: 3 } },
      },
    })
    await moveRule(ctx, id, 1, 'ask')
  })
  await runRule(db, { ruleId: pumps, cause: 'time', byId: null, requisitionId: null }, now)
}
