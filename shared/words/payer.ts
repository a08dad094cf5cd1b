import type { TypedPayer } from '#core/requisition/typed-payer'
import type { Ways } from './ways'

/** Who pays for a line, one by one with their parts: "60 % Filters", "40 % Salt"; in equal shares the names alone. */
export function sayPayers(
  payer: TypedPayer,
  nameOf: (budgetLineId: string) => string,
  ways: Pick<Ways, 'decimal'>,
): string[] {
  return payer.codings.map(({ budgetLineId, value }) =>
    value === null
      ? nameOf(budgetLineId)
      : `${ways.decimal(value)}${payer.splitMethod === 'percent' ? ' %' : ' of'} ${nameOf(budgetLineId)}`,
  )
}
