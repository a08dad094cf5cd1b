import { moneyOf, sum, type Money } from '#core/base/money'
import { spokenFor } from '#core/budget/forecast'
import { checkProfile, spreadEvenly, spreadLike, type ProfileWay } from '#core/budget/profile'
import { sayProfileReason } from '#shared/words/profile'
import { waysOf } from '#shared/words/ways'
import { appendEvent } from '../audit/store'
import type { Context } from '../context'
import { invalid, notFound, refused, stale } from '../http/problem'
import { requireOrganisation } from '../settings/reads'
import { findSameLine, lockBudgetLines } from './reads'
import { setBudgeted } from './store'

/** How a budget line is to be spread, with what was seen of it: what changed meanwhile is not written over. */
export interface ProfileAsked {
  readonly how: ProfileWay
  /** By hand: what each period is given. */
  readonly amounts?: readonly string[] | undefined
  readonly seen: readonly string[]
}

/** Spreads what a line was given for its year over the periods anew; the year, and all that stands, stay the same. */
export async function setProfile(ctx: Context, id: string, asked: ProfileAsked): Promise<{ id: string }> {
  const { baseCurrency } = await requireOrganisation(ctx.tx)
  const [line] = await lockBudgetLines(ctx.tx, [id], baseCurrency)
  if (line === undefined) throw notFound('This budget line')
  const before = line.periods.map((p) => p.budgeted)
  if (
    asked.seen.length !== before.length ||
    before.some((m, i) => m.amount !== moneyOf(asked.seen[i] ?? '0', baseCurrency).amount)
  )
    throw stale('what the months are given was changed meanwhile')
  const year = sum(before, baseCurrency)
  const amounts = await amountsOf(ctx, id, asked, year, before.length)
  const ways = waysOf(ctx.actor.locale)
  const wrong = checkProfile(amounts, year)
  if (wrong.length > 0) throw refused(wrong.map((r) => sayProfileReason(r, ways)))
  await setBudgeted(
    ctx.tx,
    id,
    line.periods.map((p, i) => ({ period: p.period, amount: amounts[i] ?? moneyOf('0', baseCurrency) })),
  )
  await appendEvent(ctx, {
    type: 'budget spread',
    subjectKind: 'budget-line',
    subjectId: id,
    before: { amounts: before.map((m) => m.amount) },
    after: { line: line.name, how: asked.how, amounts: amounts.map((m) => m.amount) },
  })
  return { id }
}

async function amountsOf(
  { tx }: Context,
  id: string,
  { how, amounts }: ProfileAsked,
  year: Money,
  periods: number,
): Promise<readonly Money[]> {
  if (how === 'evenly') return spreadEvenly(year, periods)
  if (how === 'by hand') {
    if (amounts?.length !== periods)
      throw invalid('Say what each month is given.', [{ field: 'amounts', message: `are not ${periods}` }])
    return amounts.map((a) => moneyOf(a, year.currency))
  }
  const last = await findSameLine(tx, id, -1, year.currency)
  const like =
    last === null
      ? null
      : spreadLike(
          year,
          last.periods.map((p) => spokenFor(p).amount),
        )
  if (like === null) throw refused(['Last year has nothing of this line to go by.'])
  return like
}
