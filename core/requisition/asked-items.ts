import type { Draft } from './draft'

/** By how many lines more, or fewer, a department asked for an item. */
export interface AskedMove {
  readonly departmentId: string
  readonly itemId: string
  readonly by: number
}

/**
 * What a sending moves in how often each department asked for each item: its lines are counted, and those of the
 * sending before it are taken back. In the order of items and departments, so that two at once wait for each other.
 */
export function askedMoves(before: Draft | null, now: Draft): AskedMove[] {
  const moves = new Map<string, AskedMove>()
  for (const [draft, sign] of [
    [before, -1],
    [now, 1],
  ] as const)
    for (const { itemId } of draft?.lines ?? []) {
      const departmentId = draft?.departmentId ?? null
      if (itemId === null || departmentId === null) continue
      const key = `${itemId} ${departmentId}`
      moves.set(key, { departmentId, itemId, by: (moves.get(key)?.by ?? 0) + sign })
    }
  return [...moves]
    .filter(([, move]) => move.by !== 0)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([, move]) => move)
}
