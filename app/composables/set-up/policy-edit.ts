import type { Condition, PolicyStep, Rule } from '#core/approval/policy'

/** The condition of one sort that a rule has; null where it has none. */
export const conditionOf = <O extends Condition['on']>(rule: Rule, on: O): Extract<Condition, { on: O }> | null =>
  (rule.conditions.find((c) => c.on === on) as Extract<Condition, { on: O }> | undefined) ?? null

/** A rule with another condition of a sort, in its place; without it where `to` is null. */
export function withCondition(rule: Rule, on: Condition['on'], to: Condition | null): Rule {
  const at = rule.conditions.findIndex((c) => c.on === on)
  if (at < 0) return to === null ? rule : { ...rule, conditions: [...rule.conditions, to] }
  return { ...rule, conditions: rule.conditions.flatMap((c, i) => (i === at ? (to ?? []) : [c])) }
}

/** The ranks of all rules, the first asked first, each once. */
export const ranksOf = (rules: readonly Rule[]): number[] =>
  [...new Set(rules.flatMap((r) => r.steps.map((s) => s.rank)))].sort((a, b) => a - b)

/** The rank of whoever is asked after all others. */
export const rankAfter = (rules: readonly Rule[]): number => (ranksOf(rules).at(-1) ?? 0) + 10

/** All rules with their ranks moved up, so that 1 to 9 are free before the first of them. */
export const roomBefore = (rules: readonly Rule[]): Rule[] => {
  const ranks = ranksOf(rules)
  const moved = new Map(ranks.map((r, i) => [r, (i + 1) * 10]))
  return rules.map((rule) => ({
    ...rule,
    steps: rule.steps.map((s): PolicyStep => ({ ...s, rank: moved.get(s.rank) ?? s.rank })),
  }))
}

const NTH = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth']
/** “first”, “second” ... as ranks are said. */
export const nth = (at: number): string => NTH[at] ?? `${at + 1}th`
