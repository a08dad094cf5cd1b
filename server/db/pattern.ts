/** What people type as a pattern for `ilike`: `*` and `?` stand for any signs, all else for itself. */
export function likePattern(words: string): { readonly anywhere: string; readonly number: string } {
  const pattern = words
    .trim()
    .replace(/[\\%_]/g, '\\$&')
    .replaceAll('*', '%')
    .replaceAll('?', '_')
  const anywhere = `%${pattern}%`
  // With a wildcard in it a number is meant whole.
  return { anywhere, number: /[*?]/.test(words) ? pattern : anywhere }
}
