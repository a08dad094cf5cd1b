import { may } from '#core/people/rights'
import type { Context } from '../context'
import type { ProposalRow } from './reads'

/** What was said of a proposed supplier is seen by its proposer and by whoever approves suppliers. */
export const seesProposal = ({ actor }: Pick<Context, 'actor'>, p: ProposalRow): boolean =>
  p.proposedById === actor.id || may(actor.grants, 'approve suppliers')
