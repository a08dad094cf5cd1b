import { checkVAT, countries } from 'jsvat'

/**
 * Whether a tax number that begins with a country's letters has the check digits of that country's published scheme:
 * `wrong` where one of its characters must be mistyped, `unknown` where no scheme is known or its form is another.
 */
export function checkTaxNumber(text: string): 'sound' | 'wrong' | 'unknown' {
  const number = text.toUpperCase().replace(/[^A-Z0-9]/g, '')
  if (!/^[A-Z]{2}./.test(number)) return 'unknown'
  const { isValid, isValidFormat } = checkVAT(number, countries)
  return isValid ? 'sound' : isValidFormat ? 'wrong' : 'unknown'
}
