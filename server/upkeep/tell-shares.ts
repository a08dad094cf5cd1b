import { dayOf, fiscalPeriod } from '#core/base/day'
import { figuresFor } from '#core/budget/available'
import { shareReached, tellShare } from '#core/budget/share'
import { listLinesToTell } from '../budget/reads'
import { setToldShares } from '../budget/store'
import type { Context } from '../context'
import { listHolders } from '../people/person-reads'
import { tellPeople } from '../people/tell-person'
import { isSetUp, requireOrganisation } from '../settings/reads'

/**
 * Whoever holds a budget line of this year hears once of each share that it reaches, judged over what it is checked
 * for; finance hears of a line that nobody holds.
 */
export async function tellShares(ctx: Context): Promise<void> {
  const { tx, now } = ctx
  if (!(await isSetUp(tx))) return
  const { baseCurrency, timeZone, fiscalStartMonth } = await requireOrganisation(tx)
  const today = dayOf(now, timeZone)
  const at = fiscalPeriod(today, fiscalStartMonth)
  const lines = await listLinesToTell(tx, at.year, baseCurrency)
  const looked = lines.map((line) => {
    const figures = figuresFor(line, at.period)
    return { line, figures, ...tellShare(shareReached(figures, line.tellAt), line.toldShare) }
  })
  await setToldShares(
    tx,
    looked.filter((l) => l.told !== l.line.toldShare).map((l) => ({ id: l.line.id, told: l.told })),
  )
  const finance = (await listHolders(tx, 'finance', today)).map((p) => p.id)
  await tellPeople(
    ctx,
    looked
      .filter((l) => l.tells)
      .flatMap(({ line, figures, told }) =>
        (line.holderId === null ? finance : [line.holderId]).map((personId) => ({
          personId,
          about: { kind: 'budget-line', id: line.id },
          told: {
            ...{ code: 'budget-share' as const, line: line.name, department: line.department },
            ...{ share: told ?? 0, left: figures.available },
          },
          path: `/budgets?line=${line.id}`,
        })),
      ),
  )
}
