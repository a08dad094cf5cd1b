import { BlockList, isIP, isIPv6 } from 'node:net'
import type { IncomingMessage } from 'node:http'

/** Reads addresses and networks ("10.0.0.7, 10.1.0.0/16, fd00::/8"); throws a sentence where one is none. */
export function readProxies(text: string): BlockList {
  const list = new BlockList()
  for (const entry of text.split(/[\s,]+/).filter((e) => e !== '')) {
    const [address = '', prefix, more] = entry.split('/')
    const family = isIPv6(address) ? 'ipv6' : 'ipv4'
    const bits = prefix === undefined ? null : Number(prefix)
    const isSound = bits === null || (Number.isInteger(bits) && bits >= 0 && bits <= (family === 'ipv6' ? 128 : 32))
    if (isIP(address) === 0 || more !== undefined || !isSound)
      throw new Error(`REKKO_TRUSTED_PROXIES holds “${entry}”, which is no address and no network.`)
    if (bits === null) list.addAddress(address, family)
    else list.addSubnet(address, bits, family)
  }
  return list
}

/** An address as it is, also where IPv4 arrives in IPv6's clothes. */
const plain = (address: string) => address.replace(/^::ffff:(?=\d+\.)/i, '')

/**
 * The address that a request comes from. What a proxy says is believed only where the proxy is trusted: from the right,
 * the first address of X-Forwarded-For that is not one of ours.
 */
export function addressOf(
  req: Pick<IncomingMessage, 'headers'> & { readonly socket: { readonly remoteAddress?: string | undefined } },
  trusted: BlockList,
): string {
  const isTrusted = (address: string) => trusted.check(address, isIPv6(address) ? 'ipv6' : 'ipv4')
  const header = req.headers['x-forwarded-for']
  const named = (Array.isArray(header) ? header.join(',') : (header ?? '')).split(',').map((a) => plain(a.trim()))
  let at = plain(req.socket.remoteAddress ?? '')
  for (const before of named.reverse()) {
    if (isIP(at) === 0 || !isTrusted(at) || isIP(before) === 0) break
    at = before
  }
  return at
}
