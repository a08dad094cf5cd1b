import type { BudgetStage } from '#core/budget/ledger'

const STAGES: Record<BudgetStage, string> = { reserved: 'asked for', committed: 'ordered', spent: 'billed' }

/** A stage that money of a budget passes through, as people call it. */
export const sayStage = (stage: BudgetStage): string => STAGES[stage]
