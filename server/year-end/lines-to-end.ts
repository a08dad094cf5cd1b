import { openOf, type OpenStanding } from '#core/budget/year-end'
import type { Money } from '#core/base/money'
import type { PayingLine } from '#core/requisition/draft-facts'
import { listPayingLines } from '../budget/reads'
import type { Tx } from '../db/client'
import { listLinesWithNext, listOpen } from './reads'

/** A budget line of a year that ended and of which something is still open. */
export interface LineToEnd {
  readonly id: string
  readonly name: string
  readonly department: string
  readonly open: readonly OpenStanding[]
  readonly reserved: Money
  readonly committed: Money
  readonly documents: number
  /** The line that pays for the same a year on; null where there is none. */
  readonly next: PayingLine | null
}

/** The budget lines of a year of which something is still open, with the lines that it would be carried to. */
export async function linesToEnd(tx: Tx, year: number, currency: string): Promise<LineToEnd[]> {
  const byLine = new Map<string, OpenStanding[]>()
  for (const s of await listOpen(tx, year, currency)) {
    const of = byLine.get(s.budgetLineId)
    if (of === undefined) byLine.set(s.budgetLineId, [s])
    else of.push(s)
  }
  const lines = await listLinesWithNext(tx, [...byLine.keys()])
  const ids = lines.flatMap((l) => (l.nextId === null ? [] : [l.nextId]))
  const payers = { departmentId: null, fiscalYear: year + 1, ids }
  const nexts = new Map((await listPayingLines(tx, payers, currency)).map((n) => [n.id, n]))
  return lines.map(({ nextId, ...l }) => {
    const open = byLine.get(l.id) ?? []
    const { reserved, committed, documents } = openOf(open, currency)
    return { ...l, open, reserved, committed, documents, next: nexts.get(nextId ?? '') ?? null }
  })
}
