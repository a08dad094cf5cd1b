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
  LS: 'lump sum',
} as const
export type UnitCode = keyof typeof UNITS

/**
 * Whether a line in a unit is ordered, called off and accepted by amount: of a lump sum no quantity says how much was
 * done.
 */
export const isByAmount = (unit: string): boolean => unit === BY_AMOUNT
export const BY_AMOUNT: UnitCode = 'LS'

export function isUnit(code: string): code is UnitCode {
  return Object.hasOwn(UNITS, code)
}

/** How a unit is said after a number. */
export function unitName(code: string): string {
  return isUnit(code) ? UNITS[code] : code
}

/** Other words for a unit, as catalogues write them. */
const ALSO: Readonly<Record<string, UnitCode>> = {
  piece: 'H87',
  pieces: 'H87',
  pc: 'H87',
  pcs: 'H87',
  st: 'H87',
  stk: 'H87',
  stück: 'H87',
  kilo: 'KGM',
  kilogram: 'KGM',
  gram: 'GRM',
  ton: 'TNE',
  t: 'TNE',
  l: 'LTR',
  liter: 'LTR',
  m: 'MTR',
  meter: 'MTR',
  m2: 'MTK',
  sqm: 'MTK',
  h: 'HUR',
  hr: 'HUR',
  hours: 'HUR',
  days: 'DAY',
  months: 'MON',
  ctn: 'BX',
  carton: 'BX',
}

/** The code of a unit written as its code, its name or a common short form; null where it is none that is offered. */
export function readUnit(text: string): UnitCode | null {
  const typed = text.trim()
  if (isUnit(typed.toUpperCase())) return typed.toUpperCase() as UnitCode
  const lower = typed.toLowerCase()
  const named = (Object.keys(UNITS) as UnitCode[]).find((code) => UNITS[code] === lower)
  return named ?? ALSO[lower] ?? null
}
