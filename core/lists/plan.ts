import type { Day } from '#core/base/day'
import { isKeyless, isRetired, keyOf, otherKeyOf, type ListColumn, type ListDefinition, type Values } from './list'
import type { ListRow } from './read-rows'
import type { ListReason } from './reason'

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

/** What taking a file would do, row by row. */
export interface ListPlan {
  readonly rows: readonly PlannedRow[]
}

/** True when nothing stands against taking it: it is taken whole or not at all. */
export const isSound = (plan: ListPlan): boolean => plan.rows.every((r) => r.does !== 'refused')

/**
 * Compares rows with the entries there are. What a row does not name stays as it is; a new entry has what its columns
 * begin with; `isWithin` tells whether what it is within is there. A circle of entries that name one above another is
 * refused in every row that closes it.
 */
export function planRows(
  list: ListDefinition,
  rows: readonly ListRow[],
  current: readonly Values[],
  today: Day,
  isWithin: (values: Values) => boolean = () => true,
): ListPlan {
  const byKey = new Map(current.map((c) => [keyOf(list, c), c]))
  const byOther = new Map(current.map((c) => [otherKeyOf(list, c), c]))
  const named = new Map<string, number>()
  // An entry is looked at as a whole once each of its columns is sound.
  const checked = (values: Values, reasons: readonly ListReason[]) =>
    reasons.length > 0 ? reasons : [...(list.check?.(values) ?? []), ...outside(values)]
  const outside = (values: Values): ListReason[] =>
    isWithin(values) ? [] : [{ code: 'no-budget-line', text: keyTexts(list.key.slice(0, 4), values) }]
  const planned = rows.map((given): PlannedRow => {
    const row = isKeyless(list, given.values) ? { ...given, values: withKey(list, given.values, byOther) } : given
    const key = keyOf(list, row.values)
    const first = named.get(key)
    if (first === undefined) named.set(key, row.at)
    const before = byKey.get(key) ?? null
    const { at } = row
    const isTwice = first !== undefined && row.reasons.length === 0
    const reasons: readonly ListReason[] = isTwice ? [{ code: 'twice', row: first }] : row.reasons
    if (before !== null) {
      // The spelling of a key is not changed by a file that writes it otherwise.
      const after = { ...before, ...row.values, ...pick(before, list.key) }
      const changed = list.columns.filter((c) => after[c.key] !== before[c.key]).map((c) => c.key)
      const all = checked(after, reasons)
      const does = all.length > 0 ? 'refused' : changed.length > 0 ? 'changes' : 'nothing'
      return { at, does, before, after, changed, reasons: all }
    }
    const isLacking = (c: ListColumn) => c.initial === null || (list.key.includes(c.key) && list.otherKey !== undefined)
    const missing = list.columns.filter((c) => isLacking(c) && !row.values[c.key] && !names(reasons, c.key))
    const initial = Object.fromEntries(list.columns.map((c) => [c.key, c.initial ?? '']))
    const after = { ...initial, ...row.values }
    const lacking = missing.map((c): ListReason => ({ code: 'missing', column: c.key }))
    const all = checked(after, [...reasons, ...lacking])
    return {
      at,
      does: all.length > 0 ? 'refused' : 'adds',
      before,
      after,
      changed: Object.keys(row.values),
      reasons: all,
    }
  })
  return { rows: refuseCircles(list, planned, current) }
}

/** The entries in use that a file does not name: retired with it, where that is chosen. */
export function unnamed<E extends { readonly values: Values }>(
  list: ListDefinition,
  entries: readonly E[],
  named: ReadonlySet<string>,
  today: Day,
): E[] {
  if (list.retire === null) return []
  return entries.filter((e) => !named.has(keyOf(list, e.values)) && !isRetired(list, e.values, today))
}

/** What a row says, with the key of the entry it means; a new one is called by the other columns that tell it apart. */
function withKey(list: ListDefinition, values: Values, byOther: ReadonlyMap<string | null, Values>): Values {
  const other = otherKeyOf(list, values)
  if (other === null) return values
  const found = byOther.get(other)
  const called = (list.otherKey ?? []).map((k) => values[k] ?? '').join('-')
  return { ...values, ...(found === undefined ? { [list.key[0] ?? '']: called } : pick(found, list.key)) }
}

const keyTexts = (keys: readonly string[], values: Values) =>
  keys.flatMap((k) => (values[k] ? [values[k]] : [])).join(' ')
const pick = (values: Values, keys: readonly string[]): Values =>
  Object.fromEntries(keys.map((k) => [k, values[k] ?? '']))
const names = (reasons: readonly ListReason[], column: string) =>
  reasons.some((r) => 'column' in r && r.column === column)

/** An entry that would stand above itself, by a column in which entries name others of their own list. */
function refuseCircles(list: ListDefinition, rows: readonly PlannedRow[], current: readonly Values[]): PlannedRow[] {
  const above = list.columns.filter((c) => c.kind.is === 'entry' && c.kind.of === list.name)
  return above.reduce<PlannedRow[]>((some, c) => refuseCirclesBy(list, c.key, some, current), [...rows])
}

function refuseCirclesBy(
  list: ListDefinition,
  column: string,
  rows: readonly PlannedRow[],
  current: readonly Values[],
): PlannedRow[] {
  const label = list.key[0] ?? ''
  const up = new Map<string, string>()
  const put = (v: Values) => up.set((v[label] ?? '').toLowerCase(), (v[column] ?? '').toLowerCase())
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
    const reason: ListReason = { code: 'circle', column, text: r.after[column] ?? '' }
    return { ...r, does: 'refused', reasons: [reason] }
  })
}

/** An entry as it is after it was retired today. */
export function retired(list: ListDefinition, values: Values, today: Day): Values {
  if (list.retire === null) return values
  const { column, as } = list.retire
  return { ...values, [column]: as === 'today' ? today : as.text }
}
