import type { Day } from '#core/base/day'
import { isRetired, keyOf, type ListDefinition, type Values } from './list'
import type { ListReason, ListRow } from './read-rows'

/** What taking a row would do. */
export interface PlannedRow {
  readonly at: number
  readonly does: 'adds' | 'changes' | 'nothing' | 'refused'
  readonly before: Values | null
  readonly after: Values
  /** The columns whose values change, by their keys. */
  readonly changed: readonly string[]
  readonly reasons: readonly ListReason[]
}

/** What taking a file would do, row by row, and which entries it does not name. */
export interface ListPlan {
  readonly rows: readonly PlannedRow[]
  /** Entries in use that the file does not name. */
  readonly gone: readonly Values[]
}

/** True when nothing stands against taking it: it is taken whole or not at all. */
export const isSound = (plan: ListPlan): boolean => plan.rows.every((r) => r.does !== 'refused')

/**
 * Compares rows with the entries there are. What a row does not name stays as it is; a new entry has what its columns
 * begin with. A circle of entries that name one above another is refused in every row that closes it.
 */
export function planRows(
  list: ListDefinition,
  rows: readonly ListRow[],
  current: readonly Values[],
  today: Day,
): ListPlan {
  const byKey = new Map(current.map((c) => [keyOf(list, c), c]))
  const named = new Set<string>()
  const planned = rows.map((row): PlannedRow => {
    const key = keyOf(list, row.values)
    named.add(key)
    const before = byKey.get(key) ?? null
    const { at, reasons } = row
    if (before !== null) {
      // The spelling of a key is not changed by a file that writes it otherwise.
      const after = { ...before, ...row.values, ...pick(before, list.key) }
      const changed = list.columns.filter((c) => after[c.key] !== before[c.key]).map((c) => c.key)
      const does = reasons.length > 0 ? 'refused' : changed.length > 0 ? 'changes' : 'nothing'
      return { at, does, before, after, changed, reasons }
    }
    const missing = list.columns.filter((c) => c.initial === null && !(c.key in row.values) && !names(reasons, c.key))
    const all = [...reasons, ...missing.map((c): ListReason => ({ code: 'missing', column: c.key }))]
    const initial = Object.fromEntries(list.columns.map((c) => [c.key, c.initial ?? '']))
    const after = { ...initial, ...row.values }
    return {
      at,
      does: all.length > 0 ? 'refused' : 'adds',
      before,
      after,
      changed: Object.keys(row.values),
      reasons: all,
    }
  })
  const checked = refuseCircles(list, planned, current)
  return {
    rows: checked,
    gone: current.filter((c) => !named.has(keyOf(list, c)) && !isRetired(list, c, today)),
  }
}

const pick = (values: Values, keys: readonly string[]): Values =>
  Object.fromEntries(keys.map((k) => [k, values[k] ?? '']))
const names = (reasons: readonly ListReason[], column: string) =>
  reasons.some((r) => 'column' in r && r.column === column)

/** An entry that would stand above itself, by the column in which it names another of its own list. */
function refuseCircles(list: ListDefinition, rows: readonly PlannedRow[], current: readonly Values[]): PlannedRow[] {
  const above = list.columns.find((c) => c.kind.is === 'entry' && c.kind.of === list.name)
  const label = list.key[0]
  if (above === undefined || label === undefined) return [...rows]
  const up = new Map<string, string>()
  const put = (v: Values) => up.set((v[label] ?? '').toLowerCase(), (v[above.key] ?? '').toLowerCase())
  current.forEach(put)
  for (const r of rows) if (r.does !== 'refused') put(r.after)
  const isCircle = (from: string) => {
    const seen = new Set<string>()
    for (let at = from; at !== ''; at = up.get(at) ?? '') {
      if (seen.has(at)) return at === from
      seen.add(at)
    }
    return false
  }
  return rows.map((r) => {
    const key = (r.after[label] ?? '').toLowerCase()
    if (r.does === 'refused' || r.does === 'nothing' || !isCircle(key)) return r
    const reason: ListReason = { code: 'circle', column: above.key, text: r.after[above.key] ?? '' }
    return { ...r, does: 'refused', reasons: [reason] }
  })
}

/** An entry as it is after it was retired today. */
export function retired(list: ListDefinition, values: Values, today: Day): Values {
  const { column, as } = list.retire
  return { ...values, [column]: as === 'today' ? today : as.text }
}
