import { createHash } from 'node:crypto'
import type { Tx } from '../db/client'
import { findKept, insertKey, setReply } from './idempotency-store'
import { Problem } from './problem'

/**
 * Runs `work` once for a person and key: a repeat gets the first answer, or what `again` makes of it; a repeat with
 * something else is refused. The key's row is written first, so that two at the same moment wait for each other.
 */
export async function once<T>(
  tx: Tx,
  asked: {
    readonly personId: string
    readonly key: string
    readonly route: string
    readonly input: unknown
    readonly now: Date
  },
  work: () => Promise<T>,
  again: (first: T) => Promise<T> = (first) => Promise.resolve(first),
): Promise<T> {
  const { personId, key, route, input, now } = asked
  if (!/^[\x21-\x7e]{8,120}$/.test(key))
    throw new Problem(400, 'bad-key', 'An Idempotency-Key has 8 to 120 visible characters.')
  const bodyHash = createHash('sha256').update(JSON.stringify(input)).digest('hex')
  if (!(await insertKey(tx, { personId, key, route, bodyHash, now }))) {
    const kept = await findKept(tx, personId, key)
    if (kept === null || kept.route !== route || kept.bodyHash !== bodyHash)
      throw new Problem(422, 'key-used', 'This Idempotency-Key was used for something else.')
    return again(kept.reply as T)
  }
  const reply = await work()
  await setReply(tx, personId, key, reply ?? null)
  return reply
}
