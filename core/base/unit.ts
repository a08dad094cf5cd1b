/**
 * The units offered, by their code in UN/ECE Recommendation 20, with how they are said after a number.
 * The test looks each code up in the published code list.
 */
export const UNITS = {
  H87: 'each',
  EA: 'each',
  KGM: 'kg',
  GRM: 'g',
  TNE: 'tonne',
  LTR: 'litre',
  MLT: 'ml',
  MTR: 'metre',
  MTK: 'm²',
  HUR: 'hour',
  DAY: 'day',
  MON: 'month',
  BX: 'box',
  PK: 'pack',
  SET: 'set',
  RO: 'roll',
  BG: 'bag',
  PR: 'pair',
  E48: 'service',
} as const
export type UnitCode = keyof typeof UNITS

export function isUnit(code: string): code is UnitCode {
  return Object.hasOwn(UNITS, code)
}

/** How a unit is said after a number. */
export function unitName(code: string): string {
  return isUnit(code) ? UNITS[code] : code
}
