import { addDays, type Day } from '#core/base/day'
import type { TrayPart } from './merge'
import { byRequisition } from './worth'

/** An approved line with something open: what may be ordered of it, and what decides whom it may be ordered with. */
export interface OpenLine extends TrayPart {
  /** Of its requisition. */
  readonly number: string
  readonly sentOn: Day
  readonly supplierId: string | null
  readonly departmentId: string
  /** On which it draws by itself; null: on none. */
  readonly agreementId: string | null
}

/** How lines are put together to orders. */
export interface Grouping {
  /** The need-by dates of an order lie within so many days of the earliest; null: however far apart. */
  readonly windowDays: number | null
  /** At most so many requisitions to an order; null: any number. */
  readonly mostRequests: number | null
  /** The lines of an order are of one department. */
  readonly byDepartment: boolean
}

/** Lines that may share an order: of one supplier, place, currency and agreement, their need-by dates in one window. */
export type Group = readonly OpenLine[]

/** Oldest first by the day sent, then by number; the lines of a requisition stay in the order given. */
function oldestFirst<L extends OpenLine>(lines: readonly L[]): L[] {
  return [...lines].sort((a, b) => inOrder(a.sentOn, b.sentOn) || inOrder(a.number, b.number))
}

const inOrder = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)

/**
 * The groups of lines that may share an order. The earliest need-by opens a window, all within its days belong, both
 * ends included; the next line after it opens the next. Lines without a supplier are in no group. Payment terms are
 * the agreement's or the supplier's, and so the same. Source: rules of calculation, consolidation.
 */
export function groupLines(lines: readonly OpenLine[], { windowDays, byDepartment }: Grouping): Group[] {
  const shared = new Map<string, OpenLine[]>()
  for (const l of oldestFirst(lines)) {
    if (l.supplierId === null) continue
    const key = JSON.stringify([
      l.supplierId,
      l.shipToId,
      l.currency,
      l.agreementId,
      byDepartment ? l.departmentId : null,
    ])
    const list = shared.get(key)
    if (list === undefined) shared.set(key, [l])
    else list.push(l)
  }
  return [...shared.values()].flatMap((list) => (windowDays === null ? [list] : inWindows(list, windowDays)))
}

function inWindows(list: readonly OpenLine[], days: number): OpenLine[][] {
  const opens = new Map<Day, Day>()
  let opened: Day | null = null
  for (const day of [...new Set(list.map((l) => l.needBy))].sort()) {
    if (opened === null || day > addDays(opened, days)) opened = day
    opens.set(day, opened)
  }
  const windows = new Map<Day, OpenLine[]>()
  for (const l of list) {
    const first = opens.get(l.needBy) ?? l.needBy
    const window = windows.get(first)
    if (window === undefined) windows.set(first, [l])
    else window.push(l)
  }
  return [...windows].sort(([a], [b]) => inOrder(a, b)).map(([, lines]) => lines)
}

/** A group in orders of at most so many requisitions, oldest first; a requisition stays together. */
export function capped(group: Group, mostRequests: number | null): OpenLine[][] {
  const requests = byRequisition(group)
  if (mostRequests === null) return requests.length === 0 ? [] : [requests.flat()]
  const orders: OpenLine[][] = []
  for (let from = 0; from < requests.length; from += mostRequests)
    orders.push(requests.slice(from, from + mostRequests).flat())
  return orders
}
