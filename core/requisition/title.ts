import { type Draft } from './draft'

/** A title from what is asked for: the first line, and how many more there are. */
export function proposeTitle(draft: Pick<Draft, 'lines'>): string {
  const named = draft.lines.map((l) => l.description.trim()).filter((d) => d !== '')
  const [first] = named
  if (first === undefined) return 'Nothing yet'
  const short = first.length > 60 ? `${first.slice(0, 57).trimEnd()}…` : first
  return named.length === 1 ? short : `${short} and ${named.length - 1} more`
}
