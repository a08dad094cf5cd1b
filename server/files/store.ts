import { createHash } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { file } from '../db/schema/file'
import type { Tx } from '../db/client'

/**
 * Keeps bytes by their SHA-256; the same content is kept once. Returns the hash. Its row stays locked until the end of
 * the transaction, so that nobody takes it away before it is referred to.
 */
export async function keepFile(tx: Tx, bytes: Buffer, mime: string, now: Date): Promise<string> {
  const hash = createHash('sha256').update(bytes).digest('hex')
  await tx
    .insert(file)
    .values({ hash, mime, size: bytes.length, bytes, keptAt: now })
    .onConflictDoUpdate({ target: file.hash, set: { keptAt: now } })
  return hash
}

export async function findFile(tx: Tx, hash: string): Promise<{ bytes: Buffer; mime: string; size: number } | null> {
  const [found] = await tx
    .select({ bytes: file.bytes, mime: file.mime, size: file.size })
    .from(file)
    .where(eq(file.hash, hash))
  return found ?? null
}
