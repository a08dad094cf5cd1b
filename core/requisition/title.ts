import type { DraftLine } from './draft'

/** A title from what is asked for: the first line, how many more there are, and the supplier where all have one. */
export function proposeTitle(
  draft: { readonly lines: readonly Pick<DraftLine, 'description' | 'supplierId'>[] },
  nameOf: (supplierId: string) => string | undefined = () => undefined,
): string {
  const named = draft.lines.map((l) => l.description.trim()).filter((d) => d !== '')
  const [first] = named
  if (first === undefined) return 'Nothing yet'
  const short = first.length > 60 ? `${first.slice(0, 57).trimEnd()}…` : first
  const [supplierId] = new Set(draft.lines.map((l) => l.supplierId))
  const isOne = draft.lines.every((l) => l.supplierId === supplierId)
  const supplier = isOne && supplierId != null ? nameOf(supplierId) : undefined
  const what = named.length === 1 ? short : `${short} and ${named.length - 1} more`
  return named.length === 1 || supplier === undefined ? what : `${what} from ${supplier}`.slice(0, 120)
}
