import { isUnit, type UnitCode } from '#core/base/unit'
import type { Language } from '#core/supplier/language'

const NAMES: Readonly<Record<Exclude<Language, 'en'>, Readonly<Record<UnitCode, string>>>> = {
  de: {
    H87: 'Stück',
    EA: 'Stück',
    KGM: 'kg',
    GRM: 'g',
    TNE: 't',
    LTR: 'l',
    MLT: 'ml',
    MTR: 'm',
    MTK: 'm²',
    HUR: 'Std.',
    DAY: 'Tage',
    MON: 'Monate',
    BX: 'Karton',
    PK: 'Packung',
    SET: 'Satz',
    RO: 'Rolle',
    BG: 'Beutel',
    PR: 'Paar',
    E48: 'Leistung',
    LS: 'pauschal',
  },
  fr: {
    H87: 'pce',
    EA: 'pce',
    KGM: 'kg',
    GRM: 'g',
    TNE: 't',
    LTR: 'l',
    MLT: 'ml',
    MTR: 'm',
    MTK: 'm²',
    HUR: 'h',
    DAY: 'jour',
    MON: 'mois',
    BX: 'boîte',
    PK: 'paquet',
    SET: 'jeu',
    RO: 'rouleau',
    BG: 'sac',
    PR: 'paire',
    E48: 'prestation',
    LS: 'forfait',
  },
}

/** How a unit is said after a number in another language than ours. */
export const unitNameIn = (language: Exclude<Language, 'en'>, code: string): string =>
  isUnit(code) ? NAMES[language][code] : code
