import { expect, test } from 'vitest'
import { LISTS } from './definitions'
import { divideChange } from './held'

const was = { email: 'ida@x.example', name: 'Ida', ownLimit: '300', decidingLimit: '', roles: 'buyer' }
// Common practice, no source: limits, and one’s own rights, are changed by two.
test.each([
  ['a name', { name: 'Ida Berg' }, false, null],
  ['a limit', { ownLimit: '400', name: 'Ida Berg' }, false, [{ ownLimit: '300' }, { ownLimit: '400' }]],
  ['a limit taken away', { ownLimit: '' }, false, [{ ownLimit: '300' }, { ownLimit: '' }]],
  ['roles of another', { roles: 'finance' }, false, null],
  ['one’s own roles', { roles: 'finance' }, true, [{ roles: 'buyer' }, { roles: 'finance' }]],
] as const)('%s', (_, change, isOwn, held) => {
  const after = { ...was, ...change }
  const divided = divideChange(LISTS.people, was, after, isOwn)
  expect(divided.held).toEqual(held === null ? null : { before: held[0], after: held[1] })
  expect(divided.after).toEqual({ ...after, ...held?.[0] })
})

test('a new entry begins with no limits until they are confirmed; other lists hold nothing back', () => {
  expect(divideChange(LISTS.people, null, was, false)).toEqual({
    after: { ...was, ownLimit: '' },
    held: { before: { ownLimit: '' }, after: { ownLimit: '300' } },
  })
  const limit = { person: 'ida@x.example', limit: 'deciding', amount: '900', from: '2026-12-01', until: '2026-12-31' }
  expect(divideChange(LISTS.limits, null, limit, false)).toEqual({
    after: { ...limit, amount: '', until: '' },
    held: { before: { amount: '', until: '' }, after: { amount: '900', until: '2026-12-31' } },
  })
  expect(divideChange(LISTS.accounts, null, { code: '1', ownLimit: '5' }, true).held).toBeNull()
})
