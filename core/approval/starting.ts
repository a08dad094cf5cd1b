import type { Condition, RuleDocuments, Who } from './policy'

/** The policies that an organisation may begin with. */
export const STARTING_POLICIES = ['managers', 'managers and budget holders', 'one approver'] as const
export type StartingPolicy = (typeof STARTING_POLICIES)[number]

interface StartingRule {
  readonly name: string
  readonly documents?: RuleDocuments
  readonly conditions: readonly Condition[]
  readonly sparesManagers?: boolean
  readonly steps: readonly { readonly rank: number; readonly who: Who }[]
}

const WITHIN_OWN: StartingRule = {
  name: 'Within the requester’s own limit and inside the budget, no manager is asked',
  conditions: [{ on: 'over budget', is: false }],
  sparesManagers: true,
  steps: [],
}
const CHAIN: StartingRule = {
  name: 'Every request climbs the chain of managers up to the first whose limit covers it',
  conditions: [],
  steps: [{ rank: 10, who: { by: 'chain', until: 'covered' } }],
}
const HOLDERS: StartingRule = {
  name: 'The budget holder of each budget line decides too',
  conditions: [],
  steps: [{ rank: 20, who: { by: 'budget holders' } }],
}
const PASSED: StartingRule = {
  name: 'If a budget would be passed, its budget holder decides too',
  conditions: [{ on: 'over budget', is: true }],
  steps: [{ rank: 20, who: { by: 'budget holders' } }],
}

const ORDERS: StartingRule = {
  name: 'An order that its buyer may not issue alone climbs their chain of managers, by what each may order',
  documents: 'orders',
  conditions: [],
  steps: [{ rank: 10, who: { by: 'chain', until: 'covered' } }],
}

/** The rules of a starting policy, first to last; whatever no rule fits goes to whoever decides in the end. */
export function startingRules(policy: StartingPolicy): readonly StartingRule[] {
  switch (policy) {
    case 'managers':
      return [WITHIN_OWN, CHAIN, PASSED, ORDERS]
    case 'managers and budget holders':
      return [WITHIN_OWN, CHAIN, HOLDERS, ORDERS]
    case 'one approver':
      return []
  }
}
