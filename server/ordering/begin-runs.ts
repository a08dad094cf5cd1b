import { dayOf, isBusinessDay } from '#core/base/day'
import type { Db } from '../db/client'
import { inTransaction } from '../db/transaction'
import { enqueue } from '../queue/enqueue'
import { findRequisition } from '../requisition/reads'
import { hourOf } from '../settings/moment-of'
import { isSetUp, listHolidays, requireOrganisation } from '../settings/reads'
import { findRule, listRules } from './reads'
import { setRanOn } from './store'

/** Begins the runs whose hour has come today: each rule once on a business day, whatever hour the server was down. */
export async function beginRuns(db: Db, now: Date): Promise<void> {
  if (!(await isSetUp(db))) return
  const { timeZone } = await requireOrganisation(db)
  const today = dayOf(now, timeZone)
  if (!isBusinessDay(today, new Set(await listHolidays(db, today, today)))) return
  const hour = hourOf(now, timeZone)
  for (const { id } of await listRules(db))
    await inTransaction(db, async (tx) => {
      const rule = await findRule(tx, id, true)
      if (rule?.state !== 'in force' || rule.form.time.each !== 'day') return
      if (rule.form.time.hour > hour || rule.ranOn === today) return
      await setRanOn(tx, id, today)
      await enqueue(tx, 'order-by-rule', { ruleId: id, cause: 'time', byId: null, requisitionId: null })
    })
}

/** Begins the runs of the rules that order as soon as something is approved. */
export async function orderAtOnce(db: Db, requisitionId: string): Promise<void> {
  const rules = (await listRules(db)).filter((r) => r.state === 'in force' && r.form.time.each === 'approval')
  if (rules.length === 0) return
  const requisition = await findRequisition(db, requisitionId)
  if (requisition?.state !== 'approved') return
  for (const { id: ruleId } of rules)
    await enqueue(db, 'order-by-rule', { ruleId, cause: 'approval', byId: null, requisitionId })
}
