import type { DecisionOutcome } from './progress'

/** The words by which a decision can be answered, by the language of whoever writes them. */
export interface AnswerWords {
  readonly says: Readonly<Record<DecisionOutcome, readonly string[]>>
  /** What begins the end of a letter: from here on it is no longer part of the answer. */
  readonly closings: readonly string[]
  /** What makes an approval hang on something. */
  readonly conditions: readonly string[]
}

export const ANSWER_LANGUAGES = ['en', 'de', 'fr'] as const
export type AnswerLanguage = (typeof ANSWER_LANGUAGES)[number]

/**
 * The table of words. The first of each is the one that a mail names; all are read in every mail, whatever its
 * language. Common practice, no source.
 */
export const ANSWER_WORDS: Readonly<Record<AnswerLanguage, AnswerWords>> = {
  en: {
    says: {
      approved: ['approved', 'approve', 'i approve'],
      rejected: ['rejected', 'reject', 'i reject'],
      'sent back': ['sent back', 'send back'],
    },
    closings: [
      'best',
      'best regards',
      'best wishes',
      'kind regards',
      'regards',
      'many thanks',
      'thanks',
      'thank you',
      'cheers',
      'yours',
      'sincerely',
      'yours sincerely',
      'sent from',
    ],
    conditions: ['but', 'if', 'only', 'unless', 'provided', 'except', 'as long as', 'on condition', 'subject to'],
  },
  de: {
    says: {
      approved: ['genehmigt', 'freigegeben', 'ich genehmige'],
      rejected: ['abgelehnt', 'ich lehne ab'],
      'sent back': ['zurückgegeben', 'zurück', 'zurueckgegeben', 'zurueck'],
    },
    closings: [
      'mit freundlichen grüßen',
      'freundliche grüße',
      'viele grüße',
      'beste grüße',
      'liebe grüße',
      'schöne grüße',
      'grüße',
      'gruß',
      'danke',
      'vielen dank',
      'mfg',
      'vg',
      'lg',
      'von meinem',
      'gesendet von',
    ],
    conditions: ['aber', 'wenn', 'falls', 'nur', 'sofern', 'unter der bedingung', 'vorausgesetzt', 'außer'],
  },
  fr: {
    says: {
      approved: ['approuvé', 'approuvée', 'accepté', 'acceptée', "j'approuve"],
      rejected: ['refusé', 'refusée', 'rejeté', 'rejetée', 'je refuse'],
      'sent back': ['renvoyé', 'renvoyée', 'retourné', 'retournée'],
    },
    closings: [
      'cordialement',
      'bien cordialement',
      'salutations',
      'bien à vous',
      'merci',
      'sincères salutations',
      'envoyé de',
    ],
    conditions: ['mais', 'si', 'à condition', 'sauf', 'seulement', 'uniquement', 'sous réserve', 'pourvu'],
  },
}
