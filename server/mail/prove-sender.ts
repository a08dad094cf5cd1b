import { dkimVerify } from 'mailauth/lib/dkim/verify.js'
import parseResults from 'mailauth/lib/parse-dkim-headers.js'
import type { ReadLetter } from './read-letter'

/** How names are looked up, as `dns.promises.resolve` does. */
export type Resolver = (name: string, type: string) => Promise<unknown>

export interface ProofWays {
  /** The name by which a relay in front signs what it found out (RFC 8601); null: Rekko looks itself. */
  readonly relay: string | null
  readonly resolver: Resolver
}

const domainOf = (address: string): string => address.slice(address.lastIndexOf('@') + 1).toLowerCase()
/** Whether one domain is another, or one below it. */
const isWithin = (domain: string, above: string): boolean => domain === above || domain.endsWith(`.${above}`)

/**
 * Whether a letter is proven to come from the domain that it says it is from: by what the relay in front says of it
 * (the uppermost of its statements; those of others count for nothing), or, without a relay, by a valid signature
 * (DKIM, RFC 6376) over all of it by that domain.
 */
export async function isProven(letter: ReadLetter, raw: Buffer, ways: ProofWays): Promise<boolean> {
  if (letter.from === null) return false
  const domain = domainOf(letter.from)
  return ways.relay === null ? isSigned(raw, domain, ways.resolver) : isVouched(letter, domain, ways.relay)
}

function isVouched(letter: ReadLetter, domain: string, relay: string): boolean {
  const lines = letter.headers.filter((h) => h.key === 'authentication-results').map((h) => parseResults(h.line).parsed)
  const said = lines.find((p) => p.value?.toLowerCase().split(' ')[0] === relay.toLowerCase())
  if (said === undefined) return false
  const dmarc = said.dmarc?.value?.toLowerCase()
  if (dmarc === 'pass') return (said.dmarc?.header?.from ?? domain).toLowerCase() === domain
  // A domain that says how its letters are to be judged is taken at its word.
  if (dmarc === 'fail') return false
  const signed = (said.dkim ?? []).some(
    (d) =>
      d.value?.toLowerCase() === 'pass' && isWithin(domain, (d.header?.d ?? d.header?.i ?? '').replace(/^.*@/, '')),
  )
  const sent = said.spf?.value?.toLowerCase() === 'pass' && domainOf(said.spf.smtp?.mailfrom ?? '') === domain
  return signed || sent
}

async function isSigned(raw: Buffer, domain: string, resolver: Resolver): Promise<boolean> {
  const { results } = await dkimVerify(raw, { resolver })
  return results.some(
    (r) =>
      r.status.result === 'pass' &&
      r.signingDomain !== undefined &&
      isWithin(domain, r.signingDomain.toLowerCase()) &&
      // Signed in part, anybody may have added the rest.
      r.canonBodyLengthLimited !== true,
  )
}
