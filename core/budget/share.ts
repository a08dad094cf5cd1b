import { dec } from '#core/base/decimal'
import { add, isNegative, isZero } from '#core/base/money'
import type { BudgetFigures } from './available'

/** The shares of what a budget line was given at which whoever holds it may be told, in percent. */
export const TELL_SHARES = [50, 75, 80, 90, 95, 100] as const

/**
 * The highest of some shares (percent) that what is spent, ordered and asked for has reached, itself included; null
 * where none is. Of a line that was given nothing anything at all is the whole.
 */
export function shareReached(f: Omit<BudgetFigures, 'available'>, shares: readonly number[]): number | null {
  const given = add(f.budgeted, f.adjustments)
  const taken = add(add(f.reserved, f.committed), f.spent)
  if (isZero(taken) || isNegative(taken)) return null
  const reached = shares.filter(
    (share) =>
      !dec(taken.amount).lt(
        dec(given.amount)
          .times(dec(String(share)))
          .percent(),
      ),
  )
  return reached.length === 0 ? null : Math.max(...reached)
}

/** Whether whoever holds a line is told of the share that it reached, and which is kept as told from now on. */
export function tellShare(
  reached: number | null,
  told: number | null,
): { readonly tells: boolean; readonly told: number | null } {
  return { tells: reached !== null && (told === null || reached > told), told: reached }
}
