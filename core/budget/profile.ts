import { dec, ONE } from '#core/base/decimal'
import { compare, isNegative, isZero, subtract, sum, type Money } from '#core/base/money'
import { divide } from '#core/base/split'

/** How what a budget line was given for a year is spread over its periods. */
export const PROFILE_WAYS = ['evenly', 'last year', 'by hand'] as const
export type ProfileWay = (typeof PROFILE_WAYS)[number]

/** In equal shares, by the largest remainder. */
export const spreadEvenly = (year: Money, periods: number): Money[] =>
  divide(
    year,
    Array.from({ length: periods }, () => ONE),
  )

/** As another year went; null where nothing went then, or more came back than went in some period. */
export function spreadLike(year: Money, went: readonly Money[]): Money[] | null {
  if (went.every(isZero) || went.some(isNegative)) return null
  return divide(
    year,
    went.map((m) => dec(m.amount)),
  )
}

/** What is wrong with amounts that were written by hand. */
export type ProfileReason =
  | { readonly code: 'below-nothing' }
  /** How much the periods have more than the year, or less where it is negative. */
  | { readonly code: 'another-sum'; readonly more: Money }

/** The periods of a year have to come to what the year was given; to give more or less is an adjustment. */
export function checkProfile(amounts: readonly Money[], year: Money): ProfileReason[] {
  const all = sum(amounts, year.currency)
  return [
    ...(amounts.some(isNegative) ? [{ code: 'below-nothing' } as const] : []),
    ...(compare(all, year) === 0 ? [] : [{ code: 'another-sum', more: subtract(all, year) } as const]),
  ]
}
