/** The languages in which a supplier can be written to, by ISO 639-1, as they are called in lists. */
export const LANGUAGES = { en: 'English', de: 'German', fr: 'French' } as const
export type Language = keyof typeof LANGUAGES
export const LANGUAGE_CODES = Object.keys(LANGUAGES) as Language[]

/** The language that is called so; English where none is. */
export const languageNamed = (name: string): Language => LANGUAGE_CODES.find((code) => LANGUAGES[code] === name) ?? 'en'
