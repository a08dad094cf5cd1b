import type { DraftFacts } from '#core/requisition/draft-facts'
import { writeTable, type ReadRow } from '#core/requisition/line-table'
import { writePayer } from '#core/requisition/typed-payer'
import type { ItemFound } from '#shared/contract/catalogue'
import type { SourceLine } from '#shared/contract/regulars'
import { safeCell } from '#shared/words/cell'
import { freeLine, lineFromSource } from './new-line'
import type { EditableLine } from './editable-draft'

/**
 * What lines are made with: the last line above, whose coding carries down, the facts, and how an item becomes a line.
 */
interface Making {
  readonly above: EditableLine | undefined
  readonly facts: DraftFacts
  readonly forItem: (item: ItemFound, quantity: string, above: EditableLine | undefined) => EditableLine
}

/**
 * Rows of a table as lines: what has a part number of the catalogue becomes that item, all else a line of one's own.
 */
export async function linesOfRows(
  rows: readonly ReadRow[],
  m: Making,
  match: (numbers: readonly string[]) => Promise<readonly ItemFound[]>,
): Promise<EditableLine[]> {
  const numbers = [...new Set(rows.flatMap((r) => (r.part === null ? [] : [r.part])))]
  const items = numbers.length === 0 ? [] : await match(numbers)
  const byNumber = new Map(
    [...items].reverse().flatMap(
      (i) =>
        [
          [i.number.toLowerCase(), i],
          [i.supplierPart.toLowerCase(), i],
        ] as const,
    ),
  )
  const made: EditableLine[] = []
  for (const row of rows) {
    const above = made.at(-1) ?? m.above
    const item = row.part === null ? undefined : byNumber.get(row.part.toLowerCase())
    const own = freeLine(
      { words: row.description === '' ? (row.part ?? '') : row.description, quantity: row.quantity, price: row.price },
      above,
      m.facts,
    )
    const line =
      item !== undefined
        ? m.forItem(item, row.quantity, above)
        : { ...own, supplierPart: row.part, supplierId: row.supplierId, unit: row.unit ?? own.unit }
    const paid =
      row.payer === null
        ? {}
        : { splitMethod: row.payer.splitMethod, codings: row.payer.codings.map((c) => ({ ...c })) }
    made.push({ ...line, needBy: row.needBy, ...paid })
  }
  return made
}

/** Lines from a source: what is still in the catalogue at today's price, all else as it was. */
export function linesOfSource(lines: readonly SourceLine[], items: readonly ItemFound[], m: Making): EditableLine[] {
  const byId = new Map(items.map((i) => [i.id, i]))
  const made: EditableLine[] = []
  for (const l of lines) {
    const above = made.at(-1) ?? m.above
    const item = l.itemId === null ? undefined : byId.get(l.itemId)
    made.push(item === undefined ? lineFromSource(l, above, m.facts) : m.forItem(item, l.quantity, above))
  }
  return made
}

/** All lines as a range that a spreadsheet takes; false where the browser does not allow it. */
export async function copyLines(
  lines: readonly EditableLine[],
  suppliers: Readonly<Record<string, string>>,
  facts: DraftFacts,
): Promise<boolean> {
  const payers = [...facts.budgetLines.values()]
  const written = lines.map((l) => ({
    ...l,
    supplier: l.supplierId === null ? '' : (suppliers[l.supplierId] ?? ''),
    payer: writePayer(l, payers),
  }))
  const text = writeTable(written)
    .map((r) => r.map((c) => safeCell(c).replace(/[\t\r\n]+/g, ' ')).join('\t'))
    .join('\n')
  try {
    await navigator.clipboard.writeText(text)
    return true
  } catch {
    return false
  }
}
