import { dayOf } from '#core/base/day'
import type { KeptRule } from '#shared/contract/ordering'
import { decide } from '../server/approval/decide'
import { listOpenActors } from '../server/approval/reads'
import type { Db } from '../server/db/client'
import type { Context } from '../server/context'
import { addRule, moveRule } from '../server/ordering/keep-rule'
import { runRule } from '../server/ordering/run-rule'
import { setRanOn } from '../server/ordering/store'
import { REQUISITION } from '../server/requisition/kind'
import { findRequisition } from '../server/requisition/reads'
import { createDraft } from '../server/requisition/save-draft'
import { sendRequisition } from '../server/requisition/send-requisition'
import { draftOf } from './draft-of'
import { idOf } from './ids'
import type { Need } from './world/needs'
import { personId } from './world/people'

type As = <T>(name: string, at: Date, work: (ctx: Context) => Promise<T>) => Promise<T>

const FORM: KeptRule['form'] = {
  ...{ kinds: [], departmentIds: [], categoryIds: [], supplierIds: [], price: 'agreed', upTo: '150' },
  ...{ time: { each: 'day', hour: 7 }, mostRequests: 4, windowDays: 14, byDepartment: false },
  ...{ choose: 'cheapest', waitFor: null },
}

/** What of the filters' agreement is asked for today: the second comes to more than the rule orders. */
const ASKED: readonly Need[] = [
  {
    ...{ department: 'Water Systems', by: [], title: 'Filter bags for the quarantine loop' },
    why: 'the last box is open',
    lines: [{ part: 'NW-FB-50', quantity: 12 }],
  },
  {
    ...{ department: 'Water Systems', by: [], title: 'Activated carbon, two bags' },
    why: 'the store is empty',
    lines: [{ part: 'NW-AC-25', quantity: 2 }],
  },
]

/**
 * Ordering by itself at Hallamere: filters under their agreement, every morning, with what today's run made and left;
 * and a rule for the laboratory that waits for a second person.
 */
export async function keepOrderingRules(db: Db, as: As, now: Date, timeZone: string): Promise<void> {
  const leonie = personId('Leonie Farrow')
  const today = dayOf(now, timeZone)
  const filters = await as('Harriet Voss', now, async (ctx) => {
    const { id } = await addRule(ctx, {
      ...{ name: 'Filters under their agreement', buyerId: leonie },
      form: { ...FORM, supplierIds: [idOf('supplier', 'Northmole Water')] },
    })
    await moveRule(ctx, id, 1, 'ask')
    return id
  })
  await as('Greta Molin', now, (ctx) => moveRule(ctx, filters, 2, 'confirm'))
  await as('Harriet Voss', now, async (ctx) => {
    await setRanOn(ctx.tx, filters, today)
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
  const asked: string[] = []
  for (const need of ASKED)
    await as('Rosa Castell', now, async (ctx) => {
      const id = idOf('asked for by a rule', need.title)
      await createDraft(ctx, id, draftOf(need, today, need.title))
      await sendRequisition(ctx, id, 1)
      asked.push(id)
    })
  for (const id of asked) await approveBy(as, now, id)
  await runRule(db, { ruleId: filters, cause: 'time', byId: null, requisitionId: null }, now)
}

/** Everybody who is asked approves. */
async function approveBy(as: As, now: Date, id: string): Promise<void> {
  const look = () =>
    as('Harriet Voss', now, async ({ tx }) => ({
      kept: await findRequisition(tx, id),
      next: (await listOpenActors(tx, id))[0],
    }))
  for (let at = await look(); at.kept?.state === 'in approval' && at.next !== undefined; at = await look()) {
    const { version } = at.kept
    await as(at.next.name, now, (ctx) => decide(ctx, REQUISITION, id, version, 'approve', ''))
  }
}
