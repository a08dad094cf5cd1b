import type { PaymentTerms } from '#core/base/day'

/** "net 30 days", "end of month and 15 days" */
export function sayTerms(terms: PaymentTerms): string {
  return terms.kind === 'net' ? `net ${terms.days} days` : `end of month and ${terms.days} days`
}
