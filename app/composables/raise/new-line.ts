import { priceFor, type PriceStep } from '#core/catalogue/price'
import type { DraftFacts } from '#core/requisition/compute'
import type { Entry } from '#core/requisition/entry'
import type { ItemFound } from '#shared/contract/catalogue'
import type { EditableLine } from './use-draft'

/** The coding a new line begins with: its category's account in this department, else that of the line above. */
function codingFor(account: string | null, above: EditableLine | undefined, facts: DraftFacts | null): EditableLine['codings'] {
  const lines = [...facts?.budgetLines.values() ?? []]
  const byAccount = account === null ? undefined : lines.find((l) => l.account === account)
  if (byAccount !== undefined) return [{ budgetLineId: byAccount.id, value: null }]
  if (above !== undefined) return above.codings.map((c) => ({ ...c }))
  return lines.length === 1 && lines[0] !== undefined ? [{ budgetLineId: lines[0].id, value: null }] : []
}

/** A line for a catalogue item, at the price that its quantity reaches today. */
export function lineForItem(item: ItemFound, quantity: string, above: EditableLine | undefined, facts: DraftFacts | null, today: string): EditableLine {
  const codings = codingFor(item.accountCode, above, facts)
  const fromAbove = item.accountCode === null || !codings.some((c) => facts?.budgetLines.get(c.budgetLineId)?.account === item.accountCode)
  return {
    id: crypto.randomUUID(), itemId: item.id, categoryId: item.categoryId, description: item.name, quantity, unit: item.unit, unitPrice: priceFor(item.prices, quantity, today)?.unitPrice ?? null,
    priceBase: item.priceBase, currency: item.currency, taxCode: item.taxCode, supplierId: item.supplierStanding === 'active' ? item.supplierId : null, supplierPart: item.supplierPart,
    splitMethod: fromAbove && above !== undefined ? above.splitMethod : 'percent', codings,
  }
}

/** A free line as it was typed; a new line copies the coding of the line above. */
export function freeLine(entry: Entry, above: EditableLine | undefined, facts: DraftFacts | null): EditableLine {
  return {
    id: crypto.randomUUID(), itemId: null, categoryId: null, description: entry.words, quantity: entry.quantity ?? '1', unit: 'H87', unitPrice: entry.price, priceBase: '1',
    currency: facts?.baseCurrency ?? 'EUR', taxCode: 'S', supplierId: null, supplierPart: null, splitMethod: above?.splitMethod ?? 'percent', codings: codingFor(null, above, facts),
  }
}

/** The price of a catalogue line after its quantity changed; a price written by hand stays. */
export function repriced(line: EditableLine, steps: readonly PriceStep[], before: string, today: string): string | null {
  const was = priceFor(steps, before, today)?.unitPrice ?? null
  return line.unitPrice === was ? priceFor(steps, line.quantity, today)?.unitPrice ?? line.unitPrice : line.unitPrice
}
