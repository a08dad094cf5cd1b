import type { DecimalText } from './decimal'

/** A country's rate of value-added tax as a rule, and the reduced one most is bought at; null where there is none. */
export interface UsualRates {
  readonly standard: DecimalText
  readonly reduced: DecimalText | null
}

/**
 * Rates proposed to whoever begins, by country; from memory, as of 2026. What they are is the organisation's to say:
 * it takes, changes or leaves them.
 */
export const USUAL_RATES: Readonly<Record<string, UsualRates>> = {
  AT: { standard: '20', reduced: '10' },
  AU: { standard: '10', reduced: null },
  BE: { standard: '21', reduced: '6' },
  BG: { standard: '20', reduced: '9' },
  CH: { standard: '8.1', reduced: '2.6' },
  CY: { standard: '19', reduced: '5' },
  CZ: { standard: '21', reduced: '12' },
  DE: { standard: '19', reduced: '7' },
  DK: { standard: '25', reduced: null },
  EE: { standard: '24', reduced: '9' },
  ES: { standard: '21', reduced: '10' },
  FI: { standard: '25.5', reduced: '13.5' },
  FR: { standard: '20', reduced: '5.5' },
  GB: { standard: '20', reduced: '5' },
  GR: { standard: '24', reduced: '13' },
  HR: { standard: '25', reduced: '13' },
  HU: { standard: '27', reduced: '5' },
  IE: { standard: '23', reduced: '13.5' },
  IS: { standard: '24', reduced: '11' },
  IT: { standard: '22', reduced: '10' },
  LT: { standard: '21', reduced: '12' },
  LU: { standard: '17', reduced: '8' },
  LV: { standard: '21', reduced: '12' },
  MT: { standard: '18', reduced: '5' },
  NL: { standard: '21', reduced: '9' },
  NO: { standard: '25', reduced: '15' },
  NZ: { standard: '15', reduced: null },
  PL: { standard: '23', reduced: '8' },
  PT: { standard: '23', reduced: '6' },
  RO: { standard: '21', reduced: '11' },
  SE: { standard: '25', reduced: '12' },
  SI: { standard: '22', reduced: '9.5' },
  SK: { standard: '23', reduced: '5' },
}
