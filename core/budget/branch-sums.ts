import { add, zero, type Money } from '#core/base/money'

/** What a budget line, or the lines of a whole branch, come to. */
export interface BudgetStages {
  readonly given: Money
  readonly spent: Money
  readonly committed: Money
  readonly reserved: Money
  readonly available: Money
}

export interface PlacedDepartment {
  readonly id: string
  readonly name: string
  readonly parentId: string | null
}

/** A department with all below it. */
export interface BranchSums extends BudgetStages {
  readonly id: string
  readonly name: string
  /** How many of those that are shown stand above it. */
  readonly depth: number
  /** Whether departments below it are in its sums. */
  readonly hasBelow: boolean
}

/**
 * Sums of budget lines up the tree of departments: every department with a line of its own or below it, each below the
 * one that it is part of, those side by side by their names. One above that has no line of its own and only one
 * department with lines below says nothing that this does not say, and is left out. Departments that stand in a circle
 * are part of nothing.
 */
export function branchSums(
  departments: readonly PlacedDepartment[],
  lines: readonly (BudgetStages & { readonly departmentId: string })[],
  currency: string,
): BranchSums[] {
  const byId = new Map(departments.map((d) => [d.id, d]))
  const above = (id: string): string | null => {
    const up = byId.get(id)?.parentId ?? null
    return up !== null && byId.has(up) && !reaches(byId, up, id) ? up : null
  }
  const below = new Map<string | null, PlacedDepartment[]>()
  for (const d of [...departments].sort((a, b) => a.name.localeCompare(b.name) || a.id.localeCompare(b.id))) {
    const up = above(d.id)
    below.set(up, [...(below.get(up) ?? []), d])
  }
  const nothing = zero(currency)
  const none: BudgetStages = {
    ...{ given: nothing, spent: nothing, committed: nothing, reserved: nothing, available: nothing },
  }
  const walk = (up: string | null, depth: number): BranchSums[] =>
    (below.get(up) ?? []).flatMap((d) => {
      const own = lines.filter((l) => l.departmentId === d.id)
      const under = walk(d.id, depth + 1)
      const children = under.filter((u) => u.depth === depth + 1)
      if (own.length === 0 && children.length === 0) return []
      if (own.length === 0 && children.length === 1) return under.map((u) => ({ ...u, depth: u.depth - 1 }))
      const sums = [...own, ...children].reduce(addStages, none)
      return [{ id: d.id, name: d.name, depth, hasBelow: children.length > 0, ...sums }, ...under]
    })
  return walk(null, 0)
}

const addStages = (a: BudgetStages, b: BudgetStages): BudgetStages => ({
  given: add(a.given, b.given),
  spent: add(a.spent, b.spent),
  committed: add(a.committed, b.committed),
  reserved: add(a.reserved, b.reserved),
  available: add(a.available, b.available),
})

/** Whether the way up from one department comes to another. */
function reaches(byId: ReadonlyMap<string, PlacedDepartment>, from: string, to: string): boolean {
  const seen = new Set<string>()
  for (let at: string | null = from; at !== null && !seen.has(at); at = byId.get(at)?.parentId ?? null) {
    if (at === to) return true
    seen.add(at)
  }
  return false
}
