import type { Tx } from '../db/client'
import { endOneTimeKeys, insertOneTimeKey } from '../people/one-time-store'
import { isSetUp } from '../settings/reads'

const HOURS = 24

/**
 * Where no organisation is entered yet: an address by which its first administrator may begin, once and for a day. The
 * newest one holds, whichever server printed it. Null where an organisation is there.
 */
export async function openFirstStart(tx: Tx, publicUrl: string, now: Date): Promise<string | null> {
  if (await isSetUp(tx)) return null
  await endOneTimeKeys(tx, 'first start', null)
  const expiresAt = new Date(now.getTime() + HOURS * 3_600_000)
  const key = await insertOneTimeKey(tx, { purpose: 'first start', personId: null, expiresAt })
  return new URL(`/begin?key=${key}`, publicUrl).href
}
