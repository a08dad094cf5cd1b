import { whyAlike, type AlikeReason } from '#core/supplier/alike'
import type { Context } from '../context'
import { listPairs, type PairedSupplier } from './doubles-reads'

const MOST_PAIRS = 400

/** Pairs of suppliers that may be one, the surest first; which of the two is older stands first. */
export async function findDoubles({
  tx,
}: Pick<Context, 'tx'>): Promise<{ one: PairedSupplier; other: PairedSupplier; why: AlikeReason[] }[]> {
  return (await listPairs(tx, MOST_PAIRS))
    .map(({ one, other }) => {
      const [first, then] = one.number <= other.number ? [one, other] : [other, one]
      return { one: first, other: then, why: [...new Set([...whyAlike(one, other), ...whyAlike(other, one)])] }
    })
    .filter((p) => p.why.length > 0)
    .sort((x, y) => y.why.length - x.why.length || (x.one.name < y.one.name ? -1 : 1))
}
