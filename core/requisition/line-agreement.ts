import { agreementFor, type Agreement } from '#core/agreement/fit'
import type { DrawnOn } from '#core/agreement/ceiling'
import type { Day } from '#core/base/day'
import type { Draft, DraftLine } from './draft'

/** An agreement as a draft needs it: what may draw on it, and what stands on it without the draft. */
export interface AgreementFacts extends Agreement {
  readonly of: DrawnOn
}

/** What decides on which agreement a line draws. */
export interface LineAgreementFacts {
  readonly today: Day
  readonly agreements: readonly Agreement[]
  /** The department of the draft and all above it. */
  readonly branch: readonly string[]
  readonly items: ReadonlyMap<string, { readonly agreed: boolean }>
}

/** The agreement on which a line of a draft draws by itself; null: on none. */
export function agreementOfLine<A extends Agreement>(
  line: Pick<DraftLine, 'supplierId' | 'itemId' | 'currency'>,
  draft: Pick<Draft, 'accountingDate'>,
  { today, agreements, branch }: Pick<LineAgreementFacts, 'today' | 'branch'> & { readonly agreements: readonly A[] },
): A | null {
  const { supplierId, itemId, currency } = line
  const day = draft.accountingDate ?? today
  const on = agreementFor(agreements, { supplierId, currency, day, branches: [branch], itemIds: [itemId] })
  return agreements.find((a) => a.id === on?.id) ?? null
}

/** Whether an agreement covers a line: one that is kept here, or one of which the catalogue says that there is one. */
export const hasAgreement = (
  line: Pick<DraftLine, 'supplierId' | 'itemId' | 'currency'>,
  draft: Pick<Draft, 'accountingDate'>,
  facts: LineAgreementFacts,
): boolean =>
  (line.itemId !== null && facts.items.get(line.itemId)?.agreed === true) ||
  agreementOfLine(line, draft, facts) !== null
