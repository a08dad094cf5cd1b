import type { ChainFound, ChainHead } from '#core/audit/integrity'
import type { Db, Tx } from '../db/client'
import { inTransaction } from '../db/transaction'
import { BEFORE_FIRST, ChainCheck, linkHash, type Linked } from './chain'
import { findHead, insertLinks, listLinkable, listLinked, listUnlinked, lockChain } from './chain-store'

/** How many are linked, or followed, at a time. */
const PART = 2_000

/** Lays links over all events that may get one, a part a transaction, until none is left. */
export async function layChain(db: Db): Promise<void> {
  while ((await inTransaction(db, layPart)) === PART);
}

async function layPart(tx: Tx): Promise<number> {
  await lockChain(tx)
  const events = await listLinkable(tx, PART)
  if (events.length === 0) return 0
  let { number, hash } = (await findHead(tx)) ?? { number: 0, hash: BEFORE_FIRST }
  const links = events.map((event) => {
    number += 1
    hash = linkHash(hash, event)
    return { number, seq: event.seq, hash }
  })
  await insertLinks(tx, links)
  return events.length
}

/**
 * Follows the whole chain, and says what it came to. `kept` is a head that was kept outside; `each` is told every link
 * as it is followed.
 */
export async function checkChain(
  tx: Tx,
  kept: ChainHead | null = null,
  each: (linked: Linked, previous: string) => void = () => undefined,
): Promise<ChainFound> {
  const check = new ChainCheck(kept)
  let previous = BEFORE_FIRST
  for (let after = 0; ;) {
    const part = await listLinked(tx, after, PART)
    for (const linked of part) {
      check.take(linked)
      each(linked, previous)
      previous = linked.link.hash
    }
    const last = part.at(-1)
    if (last === undefined || part.length < PART) break
    after = last.link.number
  }
  return check.end((await listUnlinked(tx, check.settled)).map((e) => e.seq))
}
