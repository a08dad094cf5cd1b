import type { SourceGroup } from '#shared/contract/regulars'

/**
 * A key for every line that is offered, group by group: the same line of the same group keeps its key when the groups
 * are looked up again with other words, wherever it then stands. Lines equal in all are told apart by their order.
 */
export function keysOf(groups: readonly SourceGroup[]): string[][] {
  return groups.map((group) => {
    const seen = new Map<string, number>()
    return group.lines.map((line) => {
      const key = `${group.id} ${JSON.stringify(line)}`
      const before = seen.get(key) ?? 0
      seen.set(key, before + 1)
      return `${key} ${before}`
    })
  })
}

/** The marks that still have their line among these keys; a mark made while they were looked up is not lost. */
export function keepMarks(marked: ReadonlySet<string>, keys: readonly string[][]): Set<string> {
  return new Set(keys.flat().filter((key) => marked.has(key)))
}
