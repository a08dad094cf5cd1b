import { createHash } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { type Tx } from '../db/client'
import { row } from '../db/rows'
import { Problem } from './problem'

interface Kept {
  route: string
  bodyHash: string
  reply: unknown
}

/**
 * Runs `work` once for a person and key: a repeat gets the first answer, a repeat with something else
 * is refused. The key's row is written first, so that two at the same moment wait for each other.
 */
export async function once<T>(
  tx: Tx,
  personId: string,
  key: string,
  route: string,
  input: unknown,
  now: Date,
  work: () => Promise<T>,
): Promise<T> {
  if (!/^[\x21-\x7e]{8,120}$/.test(key))
    throw new Problem(400, 'bad-key', 'An Idempotency-Key has 8 to 120 visible characters.')
  const bodyHash = createHash('sha256').update(JSON.stringify(input)).digest('hex')
  const fresh = await row(
    tx,
    sql`
    insert into idempotency (person_id, key, route, body_hash, status, at) values (${personId}, ${key}, ${route}, ${bodyHash}, 200, ${now.toISOString()})
    on conflict do nothing returning 1 as one`,
  )
  if (fresh === null) {
    const kept = await row<Kept>(
      tx,
      sql`select route, body_hash as "bodyHash", reply from idempotency where person_id = ${personId} and key = ${key}`,
    )
    if (kept === null || kept.route !== route || kept.bodyHash !== bodyHash)
      throw new Problem(422, 'key-used', 'This Idempotency-Key was used for something else.')
    return kept.reply as T
  }
  const reply = await work()
  await tx.execute(
    sql`update idempotency set reply = ${JSON.stringify(reply ?? null)}::jsonb where person_id = ${personId} and key = ${key}`,
  )
  return reply
}
