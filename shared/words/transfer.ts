import type { TransferReason } from '#core/budget/transfer'
import type { Ways } from './ways'

/** What stands in the way of a transfer, in words. */
export function sayTransferReason(r: TransferReason, ways: Ways): string {
  switch (r.code) {
    case 'amount-missing':
      return 'Say how much is to move.'
    case 'reason-missing':
      return 'Say what it is for.'
    case 'same-line':
      return 'Money moves between two different budget lines.'
    case 'other-year':
      return 'Money moves within one fiscal year.'
    case 'retired':
      return `${r.name} is retired.`
    case 'not-there':
      return `${r.name} has ${ways.money(r.left)} left; this is ${ways.money(r.by)} too much.`
  }
}
