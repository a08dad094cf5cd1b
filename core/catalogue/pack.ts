import { Decimal, dec, type DecimalText } from '#core/base/decimal'

/** A quantity of what comes by the pack: in whole packs, rounded up. */
export interface Packs {
  readonly packs: DecimalText
  /** What they hold: at least what was asked for. */
  readonly holds: DecimalText
  /** The packs hold just what was asked for. */
  readonly isWhole: boolean
}

/**
 * How many packs a quantity makes, both in the item's unit: ordered by the box, used by the piece. Common practice, no
 * source. Only a buyer rounds an order up; this says what it would come to.
 */
export function packsOf(quantity: DecimalText, packSize: DecimalText): Packs {
  const [asked, size] = [dec(quantity), dec(packSize)]
  const places = Math.max(asked.places(), size.places())
  const [units, each] = [asked.unitsAt(places), size.unitsAt(places)]
  const packs = Decimal.ofUnits((units + each - 1n) / each, 0)
  const holds = packs.times(size)
  return { packs: packs.toFixed(), holds: holds.toFixed(), isWhole: holds.eq(asked) }
}
