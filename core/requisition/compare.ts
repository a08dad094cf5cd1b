import { dec } from '#core/base/decimal'
import type { Address } from '#core/base/address'
import type { Draft, DraftLine, OwnValues } from './draft'

/**
 * True when `now` is `then` unchanged, or with nothing but lower quantities, lower prices or fewer
 * lines, and no file was taken away: then the decisions already made stay. Any other change of what it says starts the
 * route again; an added file does not, nor what colleagues note for each other.
 */
export function isNoMoreThan(
  then: Draft,
  now: Draft,
  files: { readonly then: readonly string[]; readonly now: readonly string[] } = { then: [], now: [] },
): boolean {
  if (files.then.some((f) => !files.now.includes(f))) return false
  const head = ({
    kind,
    title,
    accountingDate,
    overBudgetReason,
    departmentId,
    shipToId,
    address,
    shipToDetail,
    attention,
    telephone,
    instructions,
    needBy,
    why,
    justification,
    noteToSupplier,
    jobId,
    own,
  }: Draft) =>
    JSON.stringify([
      kind,
      title.trim(),
      accountingDate,
      overBudgetReason.trim(),
      departmentId,
      address === null ? shipToId : addressOf(address),
      shipToDetail,
      attention,
      telephone,
      instructions,
      needBy,
      why.trim(),
      justification.trim(),
      noteToSupplier.trim(),
      jobId,
      ownOf(own),
    ])
  const same = head(then) === head(now)
  const before = new Map(then.lines.map((l) => [l.id, l]))
  return (
    same &&
    now.lines.length > 0 &&
    now.lines.every((line) => {
      const was = before.get(line.id)
      return was !== undefined && isLowerLine(was, line)
    })
  )
}

function isLowerLine(was: DraftLine, now: DraftLine): boolean {
  const coding = (l: DraftLine) => JSON.stringify([l.splitMethod, l.codings.map((c) => [c.budgetLineId, c.value])])
  return (
    was.itemId === now.itemId &&
    was.categoryId === now.categoryId &&
    was.supplierPart === now.supplierPart &&
    was.description === now.description &&
    was.unit === now.unit &&
    was.secondDescription === now.secondDescription &&
    was.needBy === now.needBy &&
    was.noteToSupplier === now.noteToSupplier &&
    was.jobId === now.jobId &&
    ownOf(was.own) === ownOf(now.own) &&
    JSON.stringify(was.discount) === JSON.stringify(now.discount) &&
    was.currency === now.currency &&
    was.taxCode === now.taxCode &&
    was.supplierId === now.supplierId &&
    coding(was) === coding(now) &&
    dec(now.quantity).lte(dec(was.quantity)) &&
    was.unitPrice !== null &&
    now.unitPrice !== null &&
    dec(now.unitPrice)
      .times(dec(was.priceBase))
      .lte(dec(was.unitPrice).times(dec(now.priceBase)))
  )
}

const addressOf = (a: Address) => [a.name, a.street, a.postcode, a.town, a.country]
const ownOf = (own: OwnValues) =>
  JSON.stringify(
    Object.entries(own)
      .filter(([, v]) => v !== '')
      .sort(([a], [b]) => (a < b ? -1 : 1)),
  )
