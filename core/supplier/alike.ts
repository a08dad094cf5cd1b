/** A supplier as far as two of them can be one. */
export interface SupplierLikeness {
  readonly name: string
  readonly taxNumber: string | null
  readonly email: string | null
}

export type AlikeReason = 'same tax number' | 'same mail domain' | 'same name' | 'like name'

/** Domains under which anybody has a mailbox tell nothing; from memory. Invented suppliers have none of them. */
const SHARED_DOMAINS = new Set([
  'gmail.com',
  'outlook.com',
  'hotmail.com',
  'yahoo.com',
  'icloud.com',
  'gmx.net',
  'gmx.de',
  'web.de',
  'proton.me',
])
/** What firms add to their names; from memory. */
const FORMS = new Set([
  'ltd',
  'limited',
  'plc',
  'llp',
  'gmbh',
  'ag',
  'kg',
  'sa',
  'sarl',
  'srl',
  'spa',
  'bv',
  'nv',
  'as',
  'aps',
  'ab',
  'oy',
  'inc',
  'llc',
  'co',
  'company',
  'and',
  'the',
  'und',
])

const bare = (text: string) =>
  text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/ø/g, 'o').replace(/ß/g, 'ss').replace(/æ/g, 'ae')
const numberOf = (tax: string | null) => (tax ?? '').toUpperCase().replace(/[^A-Z0-9]/g, '')
const domainOf = (email: string | null) => (email ?? '').toLowerCase().split('@')[1]?.trim() ?? ''
const nameOf = (name: string) =>
  bare(name)
    .split(/[^\p{L}\p{N}]+/u)
    .filter((w) => w !== '' && !FORMS.has(w))
    .join(' ')

/** Groups of three signs of each word, blanks at its ends, as a set. */
function groupsOf(name: string): Set<string> {
  const groups = new Set<string>()
  for (const word of name.split(' ').filter((w) => w !== '')) {
    const padded = `  ${word} `
    for (let i = 0; i + 3 <= padded.length; i += 1) groups.add(padded.slice(i, i + 3))
  }
  return groups
}

/** The share of three-sign groups that two names have in common, 0 to 1: the likeness of PostgreSQL's pg_trgm. */
export function likeness(a: string, b: string): number {
  const [x, y] = [groupsOf(a), groupsOf(b)]
  const common = [...x].filter((g) => y.has(g)).length
  const all = x.size + y.size - common
  return all === 0 ? 0 : common / all
}

/**
 * Names this much alike may be one; found by trying: a letter dropped or doubled stays above, another firm in the
 * trade below.
 */
const LIKE = 0.45

/** Why two suppliers may be one and the same; empty when nothing says so. */
export function whyAlike(a: SupplierLikeness, b: SupplierLikeness): AlikeReason[] {
  const reasons: AlikeReason[] = []
  const [tax, domain, name] = [numberOf(a.taxNumber), domainOf(a.email), nameOf(a.name)]
  if (tax.length >= 5 && tax === numberOf(b.taxNumber)) reasons.push('same tax number')
  if (domain !== '' && domain === domainOf(b.email) && !SHARED_DOMAINS.has(domain)) reasons.push('same mail domain')
  const other = nameOf(b.name)
  if (name.length >= 3 && name === other) reasons.push('same name')
  else if (name.length >= 3 && (likeness(name, other) >= LIKE || (name.length >= 5 && other.startsWith(`${name} `))))
    reasons.push('like name')
  return reasons
}
