import { Decimal as Reference } from 'decimal.js'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { Decimal, dec, decimalPlaces } from '#core/base/decimal'

// Source: decimal.js from the registry, at 200 digits, half away from zero, as the outside that everything agrees with.
const Exact = Reference.clone({
  precision: 200,
  rounding: Reference.ROUND_HALF_UP,
  toExpNeg: -200,
  toExpPos: 200,
})
const theirs = (value: Reference) => (value.isZero() ? '0' : value.toFixed())

/** Decimals as long as are kept, and many near a half, nothing or a power of ten. */
const decimals = fc.oneof(
  fc
    .tuple(fc.bigInt({ min: -(10n ** 18n), max: 10n ** 18n }), fc.integer({ min: 0, max: 12 }))
    .map(([units, places]) => Decimal.ofUnits(units, places).toFixed()),
  fc.tuple(fc.integer({ min: -2000, max: 2000 }), fc.integer({ min: 0, max: 6 })).map(([n, places]) => {
    const text = Decimal.ofUnits(BigInt(n), places).toFixed()
    return text.includes('.') ? `${text}0` : text
  }),
  fc.constantFrom('0', '-0', '0.00', '1', '-1', '0.5', '-0.5', '99.995', '-99.995', '0.000001', '999999999.999999'),
)
/** Thousands of cases of every function, many more in `npm run deep`; a million of each agreed once. */
const runs = { numRuns: fc.readConfigureGlobal().numRuns === undefined ? 3000 : 20_000 }
const places = fc.integer({ min: 0, max: 14 })

/** One answer from both, for the same operands. */
function agree(ours: Decimal, reference: Reference): void {
  expect(ours.toFixed()).toBe(theirs(reference))
}

describe('decimals agree with decimal.js', () => {
  const two = (ours: (a: Decimal, b: Decimal) => Decimal, reference: (a: Reference, b: Reference) => Reference) =>
    fc.assert(
      fc.property(decimals, decimals, (a, b) => agree(ours(dec(a), dec(b)), reference(new Exact(a), new Exact(b)))),
      runs,
    )

  test('sums', () =>
    two(
      (a, b) => a.plus(b),
      (a, b) => a.plus(b),
    ))
  test('differences', () =>
    two(
      (a, b) => a.minus(b),
      (a, b) => a.minus(b),
    ))
  test('products', () =>
    two(
      (a, b) => a.times(b),
      (a, b) => a.times(b),
    ))
  test('the greater and the less', () => {
    two(
      (a, b) => Decimal.max(a, b),
      (a, b) => Reference.max(a, b),
    )
    two(
      (a, b) => Decimal.min(a, b),
      (a, b) => Reference.min(a, b),
    )
  })

  test('quotients, at 40 places, and rounded again at the places that are kept', () => {
    fc.assert(
      fc.property(decimals, decimals, places, (a, b, at) => {
        fc.pre(!dec(b).isZero())
        const quotient = new Exact(a).dividedBy(new Exact(b))
        agree(dec(a).dividedBy(dec(b)), quotient.toDecimalPlaces(40))
        agree(dec(a).dividedBy(dec(b)).toPlaces(at), quotient.toDecimalPlaces(at))
      }),
      runs,
    )
    expect(() => dec('1').dividedBy(dec('0'))).toThrow(RangeError)
  })

  test('hundredths, the other sign, the size', () => {
    fc.assert(
      fc.property(decimals, (a) => {
        agree(dec(a).percent(), new Exact(a).dividedBy(100))
        agree(dec(a).negated(), new Exact(a).negated())
        agree(dec(a).abs(), new Exact(a).abs())
        expect(dec(a).toNumber()).toBe(new Exact(a).toNumber() + 0)
      }),
      runs,
    )
  })

  test('rounding, as a decimal, as text with its zeros and as whole units', () => {
    fc.assert(
      fc.property(decimals, places, (a, at) => {
        const rounded = new Exact(a).toDecimalPlaces(at)
        agree(dec(a).toPlaces(at), rounded)
        expect(dec(a).toFixed(at)).toBe(rounded.isZero() ? new Exact(0).toFixed(at) : rounded.toFixed(at))
        expect(dec(a).unitsAt(at).toString()).toBe(theirs(rounded.times(new Exact(10).pow(at))))
        expect(decimalPlaces(a)).toBe(new Exact(a).decimalPlaces())
      }),
      runs,
    )
  })

  test('comparing, whatever the trailing zeros', () => {
    fc.assert(
      fc.property(decimals, decimals, (a, b) => {
        const [x, y, p, q] = [dec(a), dec(b), new Exact(a), new Exact(b)]
        expect(x.comparedTo(y)).toBe(p.comparedTo(q))
        expect([x.eq(y), x.lt(y), x.lte(y), x.gt(y), x.gte(y)]).toEqual([p.eq(q), p.lt(q), p.lte(q), p.gt(q), p.gte(q)])
        expect([x.isZero(), x.isNegative(), x.isPositive()]).toEqual([p.isZero(), p.lt(0), p.gt(0)])
      }),
      runs,
    )
  })
})

test('what is no plain decimal is refused', () => {
  for (const text of ['', ' 1', '1e3', '+1', '1,5', '.5', '1.', '0x1', '--1', 'NaN', '9'.repeat(31)])
    expect(() => dec(text), text).toThrow(RangeError)
})
