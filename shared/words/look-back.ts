import { isSound, type ChainFault, type IntegrityCheck, type IntegrityFound } from '#core/audit/integrity'
import { capital, formatCount, listWords } from './format'

const CHECKS: Record<IntegrityCheck, { readonly one: string; readonly many: string; readonly is: string }> = {
  balances: {
    one: 'period of a budget line is not the sum of its entries',
    many: 'periods of budget lines are not the sum of their entries',
    is: 'balances are the sum of their entries',
  },
  stages: {
    one: 'document holds another amount than it should',
    many: 'documents hold another amount than they should',
    is: 'documents hold what they should',
  },
  orders: {
    one: 'order comes to another amount than its lines',
    many: 'orders come to another amount than their lines',
    is: 'orders come to what their lines do',
  },
  numbers: {
    one: 'series of numbers has a gap',
    many: 'series of numbers have gaps',
    is: 'numbers have no gaps',
  },
  chain: { one: 'event does not fit', many: 'events do not fit', is: 'the chain of events is whole' },
}

/** What does not fit the chain of events. */
export function sayFault(fault: ChainFault): string {
  switch (fault.code) {
    case 'event-gone':
      return `Event ${fault.seq ?? ''}, number ${fault.number} of the chain, is gone.`
    case 'event-changed':
      return `Event ${fault.seq ?? ''}, number ${fault.number} of the chain, says something else than it did.`
    case 'link-missing':
      return `Number ${fault.number} of the chain is missing.`
    case 'event-unlinked':
      return `Event ${fault.seq} stands among old ones and is not in the chain.`
    case 'event-late':
      return `Event ${fault.seq} came in long after those beside it.`
    case 'head-differs':
      return `Number ${fault.number} of the chain is not what was kept outside.`
  }
}

/** What a look found, as one sentence; what broke, each a sentence. */
export function sayLook(found: IntegrityFound): { readonly sentence: string; readonly broken: readonly string[] } {
  const broken = [
    ...found.broken.map(
      (b) => `${capital(formatCount(b.count, CHECKS[b.check].one, CHECKS[b.check].many))}; the first is ${b.first}.`,
    ),
    ...(found.chain.fault === null ? [] : [sayFault(found.chain.fault)]),
  ]
  return {
    sentence: isSound(found)
      ? `${capital(listWords(Object.values(CHECKS).map((c) => c.is)))}.`
      : `${capital(formatCount(broken.length, 'thing does', 'things do'))} not agree.`,
    broken,
  }
}
