/** A budget line as its code is typed: department, account and, where there is one, project. */
export interface CodedBudgetLine {
  readonly id: string
  /** "4100-610" or "4100-610-P7". */
  readonly code: string
  readonly account: string
  readonly project: string | null
}

const partsOf = (code: string) => code.toLowerCase().split('-')

/**
 * The budget lines that a typed code means, best first: a whole code, then parts in their order from
 * wherever they begin ("4100-61", "610", "61-p7"), each typed part being the beginning of its own. A
 * project alone, with the account that a line's category proposes, gives the full code. Parts are
 * told apart by hyphens, points, strokes or blanks. What holds no figure is no code.
 */
export function matchCode<L extends CodedBudgetLine>(
  typed: string,
  lines: readonly L[],
  categoryAccount: string | null = null,
): L[] {
  const wanted = typed
    .toLowerCase()
    .trim()
    .split(/[-./\s]+/)
    .filter((p) => p !== '')
  if (wanted.length === 0 || !/\d/.test(typed)) return []
  const rank = (line: L): number => {
    const parts = partsOf(line.code)
    if (wanted.join('-') === parts.join('-')) return 0
    const onlyProject = wanted.length === 1 && line.project !== null && wanted[0] === line.project.toLowerCase()
    if (onlyProject) return line.account === categoryAccount ? 1 : 4
    for (let from = 0; from + wanted.length <= parts.length; from += 1) {
      if (wanted.every((w, i) => parts[from + i] === w)) return 2
      if (wanted.every((w, i) => parts[from + i]?.startsWith(w))) return 3
    }
    return Infinity
  }
  return lines
    .map((line) => ({ line, at: rank(line) }))
    .filter((x) => x.at < Infinity)
    .sort((a, b) => a.at - b.at || (a.line.code < b.line.code ? -1 : 1))
    .map((x) => x.line)
}
