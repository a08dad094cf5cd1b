import { createHmac, timingSafeEqual } from 'node:crypto'

const SIGNS = 32

/**
 * What opens an order to its supplier without an account: unguessable without the server's secret, and the same in
 * every mail about it, so that it is kept nowhere.
 */
export function answerKeyOf(secret: string, orderId: string): string {
  return orderId.replaceAll('-', '') + signOf(secret, orderId)
}

/** The order that a key opens; null where it opens none. */
export function readAnswerKey(secret: string, key: string): string | null {
  const parts = /^([0-9a-f]{8})([0-9a-f]{4})([0-9a-f]{4})([0-9a-f]{4})([0-9a-f]{12})([0-9a-f]{32})$/.exec(key)
  if (parts === null) return null
  const orderId = parts.slice(1, 6).join('-')
  return timingSafeEqual(Buffer.from(parts[6] ?? ''), Buffer.from(signOf(secret, orderId))) ? orderId : null
}

const signOf = (secret: string, orderId: string): string =>
  createHmac('sha256', secret).update(`supplier's answer ${orderId}`).digest('hex').slice(0, SIGNS)
