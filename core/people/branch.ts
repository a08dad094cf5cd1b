/** Of each department, itself and all above it, itself first; one that stands in a circle stops where it began. */
export function branchesOf(
  departments: readonly { readonly id: string; readonly parentId: string | null }[],
): ReadonlyMap<string, readonly string[]> {
  const above = new Map(departments.map((d) => [d.id, d.parentId]))
  return new Map(
    departments.map(({ id }) => {
      const branch: string[] = []
      for (let at: string | null = id; at !== null && !branch.includes(at); at = above.get(at) ?? null) branch.push(at)
      return [id, branch]
    }),
  )
}
