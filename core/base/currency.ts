/**
 * Minor units by ISO 4217 for the currencies whose number of decimals is not two.
 * Source: ISO 4217 table A.1; the test reads the same table from the registry's `currency-codes`.
 */
const MINOR_UNITS: Readonly<Record<string, number>> = {
  BHD: 3,
  BIF: 0,
  CLF: 4,
  CLP: 0,
  DJF: 0,
  GNF: 0,
  IQD: 3,
  ISK: 0,
  JOD: 3,
  JPY: 0,
  KMF: 0,
  KRW: 0,
  KWD: 3,
  LYD: 3,
  OMR: 3,
  PYG: 0,
  RWF: 0,
  TND: 3,
  UGX: 0,
  UYI: 0,
  UYW: 4,
  VND: 0,
  VUV: 0,
  XAF: 0,
  XOF: 0,
  XPF: 0,
}

/** True for text with the shape of an ISO 4217 alphabetic code. */
export function isCurrency(code: string): boolean {
  return /^[A-Z]{3}$/.test(code)
}

/** Decimals of the currency's minor unit: EUR 2, JPY 0, KWD 3. */
export function minorUnits(code: string): number {
  if (!isCurrency(code)) throw new RangeError(`not a currency: ${code.slice(0, 10)}`)
  return MINOR_UNITS[code] ?? 2
}
