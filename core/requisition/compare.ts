import { dec } from '#core/base/decimal'
import { type Draft, type DraftLine } from './draft'

/**
 * True when `now` is `then` unchanged, or with nothing but lower quantities, lower prices or fewer
 * lines: then the decisions already made stay. Any other change starts the route again.
 */
export function isNoMoreThan(then: Draft, now: Draft): boolean {
  const same = then.kind === now.kind && then.departmentId === now.departmentId && then.shipToId === now.shipToId
    && then.shipToDetail === now.shipToDetail && then.needBy === now.needBy && then.why.trim() === now.why.trim()
  const before = new Map(then.lines.map((l) => [l.id, l]))
  return same && now.lines.length > 0 && now.lines.every((line) => {
    const was = before.get(line.id)
    return was !== undefined && isLowerLine(was, line)
  })
}

function isLowerLine(was: DraftLine, now: DraftLine): boolean {
  const coding = (l: DraftLine) => JSON.stringify([l.splitMethod, l.codings.map((c) => [c.budgetLineId, c.value])])
  return was.itemId === now.itemId && was.description === now.description && was.unit === now.unit
    && was.currency === now.currency && was.taxCode === now.taxCode && was.supplierId === now.supplierId
    && coding(was) === coding(now)
    && dec(now.quantity).lte(dec(was.quantity))
    && was.unitPrice !== null && now.unitPrice !== null
    && dec(now.unitPrice).times(dec(was.priceBase)).lte(dec(was.unitPrice).times(dec(now.priceBase)))
}
