import { itemLine } from '#core/catalogue/item-line'
import { priceFor, type PriceStep } from '#core/catalogue/price'
import type { DraftFacts } from '#core/requisition/draft-facts'
import { BLANK_LINE } from '#core/requisition/draft'
import type { Entry } from '#core/requisition/entry'
import type { ItemFound } from '#shared/contract/catalogue'
import type { SourceLine } from '#shared/contract/regulars'
import type { EditableLine } from './editable-draft'

/** The coding a new line begins with: its category's account in this department, else that of the line above. */
function codingFor(
  account: string | null,
  above: EditableLine | undefined,
  facts: DraftFacts,
): EditableLine['codings'] {
  const lines = [...facts.budgetLines.values()]
  const byAccount = account === null ? undefined : lines.find((l) => l.account === account)
  if (byAccount !== undefined) return [{ budgetLineId: byAccount.id, value: null }]
  if (above !== undefined) return above.codings.map((c) => ({ ...c }))
  return lines.length === 1 && lines[0] !== undefined ? [{ budgetLineId: lines[0].id, value: null }] : []
}

/** A line for a catalogue item, at the price that its quantity reaches today. */
export function lineForItem(
  item: ItemFound,
  quantity: string,
  above: EditableLine | undefined,
  facts: DraftFacts,
  today: string,
): EditableLine {
  const codings = codingFor(item.accountCode, above, facts)
  const fromAbove =
    item.accountCode === null ||
    !codings.some((c) => facts.budgetLines.get(c.budgetLineId)?.account === item.accountCode)
  return {
    ...BLANK_LINE,
    ...itemLine(item, quantity, today),
    id: crypto.randomUUID(),
    own: {},
    jobId: above?.jobId ?? null,
    splitMethod: fromAbove && above !== undefined ? above.splitMethod : 'percent',
    codings,
  }
}

/** The tax of a line of which nothing is said: the standard code, or the first that is still offered. */
function usualTax({ taxCodes }: DraftFacts): string {
  const offered = [...taxCodes].flatMap(([code, t]) => (t.retired === true ? [] : [code]))
  return offered.includes(BLANK_LINE.taxCode) ? BLANK_LINE.taxCode : (offered[0] ?? BLANK_LINE.taxCode)
}

/** A free line as it was typed; a new line copies the coding of the line above. */
export function freeLine(entry: Entry, above: EditableLine | undefined, facts: DraftFacts): EditableLine {
  return {
    ...BLANK_LINE,
    id: crypto.randomUUID(),
    own: {},
    jobId: above?.jobId ?? null,
    description: entry.words,
    quantity: entry.quantity ?? '1',
    unitPrice: entry.price,
    currency: facts.baseCurrency,
    taxCode: usualTax(facts),
    splitMethod: above?.splitMethod ?? 'percent',
    codings: codingFor(null, above, facts),
  }
}

/** A line as a source offers it, that is not, or no longer, of the catalogue. */
export function lineFromSource(l: SourceLine, above: EditableLine | undefined, facts: DraftFacts): EditableLine {
  return {
    ...BLANK_LINE,
    id: crypto.randomUUID(),
    own: {},
    jobId: above?.jobId ?? null,
    description: l.description,
    secondDescription: l.secondDescription,
    quantity: l.quantity,
    unit: l.unit,
    unitPrice: l.unitPrice,
    priceBase: l.priceBase,
    currency: l.currency,
    taxCode: l.taxCode,
    supplierId: l.supplierId,
    supplierPart: l.supplierPart,
    categoryId: l.categoryId,
    splitMethod: 'percent',
    codings: codingFor(l.account, above, facts),
  }
}

/** The catalogue's price of a line after its quantity changed; a price written by hand stays beside it. */
export function reprice(line: EditableLine, steps: readonly PriceStep[], today: string): void {
  const price = priceFor(steps, line.quantity, today)?.unitPrice ?? null
  if (line.unitPrice === line.listPrice) line.unitPrice = price
  line.listPrice = price
}
