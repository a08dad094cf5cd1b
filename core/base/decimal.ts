/** A decimal as it crosses JSON and the database: plain digits, a point, perhaps a minus. */
export type DecimalText = string

const DECIMAL_TEXT = /^-?\d{1,30}(\.\d{1,20})?$/

/** Places to which a quotient that does not end is worked out: far behind every place that is kept. */
const QUOTIENT_PLACES = 40

/**
 * An exact decimal: whole units, of which 10 to the power of `scale` make one. Sums, differences and products are
 * exact at any length. A quotient is exact too where it ends within 40 places; else it is rounded there, half away from
 * zero. There is no minus zero. Checked against the registry's decimal.js in `decimal.test.ts`.
 */
export class Decimal {
  private constructor(
    private readonly units: bigint,
    private readonly scale: number,
  ) {}

  /** Reads plain decimal text; throws on anything else. */
  static read(text: DecimalText): Decimal {
    const point = text.indexOf('.')
    return point < 0
      ? new Decimal(BigInt(text), 0)
      : new Decimal(BigInt(text.slice(0, point) + text.slice(point + 1)), text.length - point - 1)
  }

  /** So many units of the last of `places` places: 1250 at 2 places is 12.50. */
  static ofUnits(units: bigint, places: number): Decimal {
    return new Decimal(units, places)
  }

  /** The greatest of several. */
  static max(first: Decimal, ...others: readonly Decimal[]): Decimal {
    return others.reduce((a, b) => (b.gt(a) ? b : a), first)
  }

  /** The least of several. */
  static min(first: Decimal, ...others: readonly Decimal[]): Decimal {
    return others.reduce((a, b) => (b.lt(a) ? b : a), first)
  }

  plus(other: Decimal): Decimal {
    const scale = Math.max(this.scale, other.scale)
    return new Decimal(this.scaledUp(scale) + other.scaledUp(scale), scale)
  }

  minus(other: Decimal): Decimal {
    const scale = Math.max(this.scale, other.scale)
    return new Decimal(this.scaledUp(scale) - other.scaledUp(scale), scale)
  }

  times(other: Decimal): Decimal {
    return new Decimal(this.units * other.units, this.scale + other.scale)
  }

  /** The quotient, at 40 places. Throws a RangeError where it is divided by 0. */
  dividedBy(divisor: Decimal): Decimal {
    const shift = QUOTIENT_PLACES - this.scale + divisor.scale
    const above = shift < 0 ? this.units : this.units * tenTo(shift)
    const below = shift < 0 ? divisor.units * tenTo(-shift) : divisor.units
    return new Decimal(halfAway(above, below), QUOTIENT_PLACES)
  }

  /** Hundredths of it, exactly. */
  percent(): Decimal {
    return new Decimal(this.units, this.scale + 2)
  }

  negated(): Decimal {
    return new Decimal(-this.units, this.scale)
  }

  abs(): Decimal {
    return this.units < 0n ? this.negated() : this
  }

  /** Rounded half away from zero to so many places. */
  toPlaces(places: number): Decimal {
    return places >= this.scale ? this : new Decimal(this.unitsAt(places), places)
  }

  /** How many units of the last of `places` places it is, rounded half away from zero. */
  unitsAt(places: number): bigint {
    return places >= this.scale ? this.scaledUp(places) : halfAway(this.units, tenTo(this.scale - places))
  }

  /** -1, 0 or 1. */
  comparedTo(other: Decimal): -1 | 0 | 1 {
    const scale = Math.max(this.scale, other.scale)
    const a = this.scaledUp(scale)
    const b = other.scaledUp(scale)
    return a < b ? -1 : a > b ? 1 : 0
  }

  eq(other: Decimal): boolean {
    return this.comparedTo(other) === 0
  }

  lt(other: Decimal): boolean {
    return this.comparedTo(other) < 0
  }

  lte(other: Decimal): boolean {
    return this.comparedTo(other) <= 0
  }

  gt(other: Decimal): boolean {
    return this.comparedTo(other) > 0
  }

  gte(other: Decimal): boolean {
    return this.comparedTo(other) >= 0
  }

  isZero(): boolean {
    return this.units === 0n
  }

  isNegative(): boolean {
    return this.units < 0n
  }

  isPositive(): boolean {
    return this.units > 0n
  }

  /** Digits after the point, trailing zeros not counted. */
  places(): number {
    const text = this.toFixed()
    const point = text.indexOf('.')
    return point < 0 ? 0 : text.length - point - 1
  }

  /** Plain text at so many places, rounded half away from zero; as many as it has where none are given. */
  toFixed(places?: number): DecimalText {
    const kept = places ?? this.scale
    const units = this.unitsAt(kept)
    const digits = (units < 0n ? -units : units).toString().padStart(kept + 1, '0')
    const text = (units < 0n ? '-' : '') + (kept === 0 ? digits : `${digits.slice(0, -kept)}.${digits.slice(-kept)}`)
    return places === undefined && kept > 0 ? text.replace(/\.?0+$/, '') : text
  }

  /** The nearest binary number: for drawing, never for money. */
  toNumber(): number {
    return Number(this.toFixed())
  }

  private scaledUp(scale: number): bigint {
    return scale === this.scale ? this.units : this.units * tenTo(scale - this.scale)
  }
}

const POWERS: bigint[] = [1n]

/** 10 to the power of a whole number from 0 on, each worked out once. */
function tenTo(power: number): bigint {
  for (let known = POWERS.length; known <= power; known += 1) POWERS.push((POWERS[known - 1] ?? 1n) * 10n)
  return POWERS[power] ?? 1n
}

/** above / below, rounded to a whole number half away from zero. */
function halfAway(above: bigint, below: bigint): bigint {
  const whole = above / below
  const rest = above % below
  const isHalf = (rest < 0n ? -rest : rest) * 2n >= (below < 0n ? -below : below)
  if (!isHalf) return whole
  return above < 0n === below < 0n ? whole + 1n : whole - 1n
}

export const NOTHING = Decimal.ofUnits(0n, 0)
export const ONE = Decimal.ofUnits(1n, 0)
export const HUNDRED = Decimal.ofUnits(100n, 0)

/** True for plain decimal text; exponents, blanks and signs other than a leading minus are not. */
export function isDecimalText(text: string): boolean {
  return DECIMAL_TEXT.test(text)
}

/** Reads decimal text. Throws on anything else: callers at the border have checked already. */
export function dec(text: DecimalText): Decimal {
  if (!isDecimalText(text)) throw new RangeError(`not a decimal: ${text.slice(0, 40)}`)
  return Decimal.read(text)
}

/** Digits after the point, trailing zeros not counted. */
export function decimalPlaces(text: DecimalText): number {
  return dec(text).places()
}
