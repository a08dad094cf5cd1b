import { dayOf, fiscalPeriod } from '#core/base/day'
import { setUpSteps, type SetUpStep } from '#core/lists/set-up'
import type { HeldView } from '#shared/contract/lists'
import type { Context } from '../context'
import { requireOrganisation } from '../settings/reads'
import { readHeld } from './confirm-held'
import { countSetUp } from './set-up-reads'

/** What is set up and what is not, in the order in which it is needed. */
export async function readSetUp(ctx: Context): Promise<{ steps: SetUpStep[]; held: HeldView[] }> {
  const { tx, now } = ctx
  const { timeZone, fiscalStartMonth } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  const counts = await countSetUp(tx, fiscalPeriod(today, fiscalStartMonth).year, today)
  return { steps: setUpSteps(counts), held: await readHeld(ctx) }
}
