import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto'
import { environment } from '../environment'

const keyFor = (purpose: string) => createHash('sha256').update(`${purpose} ${environment().sessionSecret}`).digest()
const NONCE = 12
const TAG = 16

/** Seals a secret that has to be read again (AES-256-GCM), so that no backup of the database holds it. */
export function seal(purpose: string, secret: string): string {
  const nonce = randomBytes(NONCE)
  const cipher = createCipheriv('aes-256-gcm', keyFor(purpose), nonce)
  const sealed = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()])
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64url')
}

/** Opens what was sealed; null where it was sealed under another secret of the server. */
export function unseal(purpose: string, text: string): string | null {
  const bytes = Buffer.from(text, 'base64url')
  try {
    const decipher = createDecipheriv('aes-256-gcm', keyFor(purpose), bytes.subarray(0, NONCE))
    decipher.setAuthTag(bytes.subarray(NONCE, NONCE + TAG))
    return Buffer.concat([decipher.update(bytes.subarray(NONCE + TAG)), decipher.final()]).toString('utf8')
  } catch {
    return null
  }
}
