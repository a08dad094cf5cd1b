import { expect, test } from 'vitest'
import { addressOf, readProxies } from './address-of'

const from = (remoteAddress: string, forwarded?: string, proxies = '10.0.0.0/8, ::1') =>
  addressOf(
    { headers: forwarded === undefined ? {} : { 'x-forwarded-for': forwarded }, socket: { remoteAddress } },
    readProxies(proxies),
  )

test.each([
  ['203.0.113.9', undefined, '203.0.113.9'],
  // A stranger says what they like.
  ['203.0.113.9', '198.51.100.1', '203.0.113.9'],
  ['10.0.0.1', '198.51.100.1', '198.51.100.1'],
  ['::ffff:10.0.0.1', '198.51.100.1', '198.51.100.1'],
  ['::1', '2001:db8::7', '2001:db8::7'],
  // Two proxies of ours, and what somebody put in front of them.
  ['10.0.0.1', '1.1.1.1, 198.51.100.1, 10.2.3.4', '198.51.100.1'],
  ['10.0.0.1', 'nonsense', '10.0.0.1'],
  ['10.0.0.1', '', '10.0.0.1'],
] as const)('from %s with %s it is %s', (remote, forwarded, expected) => {
  expect(from(remote, forwarded)).toBe(expected)
})

test('nobody is trusted where none is named; what is no address is refused with a sentence', () => {
  expect(from('10.0.0.1', '198.51.100.1', '')).toBe('10.0.0.1')
  for (const wrong of ['10.0.0', 'proxy.example', '10.0.0.0/33', '10.0.0.0/8/8', '::1/x'])
    expect(() => readProxies(wrong)).toThrow('no address and no network')
})
