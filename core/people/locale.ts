/** Whose ways of writing numbers and dates somebody may choose: locales (BCP 47), by where they are usual. */
export const LOCALES = {
  'en-GB': 'Britain',
  'en-IE': 'Ireland',
  'en-US': 'the United States',
  'de-DE': 'Germany',
  'de-AT': 'Austria',
  'de-CH': 'Switzerland',
  'fr-FR': 'France',
  'fr-BE': 'Belgium',
  'nl-NL': 'the Netherlands',
  'da-DK': 'Denmark',
  'nb-NO': 'Norway',
  'sv-SE': 'Sweden',
  'fi-FI': 'Finland',
  'es-ES': 'Spain',
  'it-IT': 'Italy',
  'pt-PT': 'Portugal',
  'pl-PL': 'Poland',
  'cs-CZ': 'Czechia',
} as const
export type Locale = keyof typeof LOCALES
export const LOCALE_NAMES = Object.keys(LOCALES) as Locale[]
