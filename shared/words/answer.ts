import type { Unclear } from '#core/approval/answer'
import type { DecisionOutcome } from '#core/approval/progress'
import { ANSWER_LANGUAGES, ANSWER_WORDS, type AnswerLanguage } from '#core/approval/answer-words'

/** Why an answer by mail changed nothing, besides what it says itself. */
export type AnswerRefusal = Unclear | 'answered' | 'too old' | 'sent again' | 'not by mail' | 'second factor'

/** The language of the table that a reader's locale asks for; English where the table has none. */
export const answerLanguage = (locale: string): AnswerLanguage =>
  ANSWER_LANGUAGES.find((l) => locale.toLowerCase().startsWith(l)) ?? 'en'

/** The word that a mail names for a verdict, in the language of its reader. */
const answerWord = (outcome: DecisionOutcome, language: AnswerLanguage): string =>
  ANSWER_WORDS[language].says[outcome][0] ?? outcome

const PLACEHOLDER: Readonly<Record<AnswerLanguage, string>> = { en: 'why', de: 'warum', fr: 'pourquoi' }

/** What may be written in the first line of an answer, each with what it does. */
export const sayAnswers = (language: AnswerLanguage, owner: string): readonly (readonly [string, string])[] => [
  [answerWord('approved', language), 'approves it'],
  [`${answerWord('rejected', language)}: ${PLACEHOLDER[language]}`, 'ends it'],
  [`${answerWord('sent back', language)}: ${PLACEHOLDER[language]}`, `gives it back to ${owner} to change`],
  ['a question that ends with “?”', `asks ${owner}, and decides nothing`],
]

/** Why an answer changed nothing, and what to do. */
export function sayUnanswered(why: AnswerRefusal): string {
  switch (why) {
    case 'empty':
      return 'Nothing was written above the quoted letter.'
    case 'not understood':
      return (
        'Its first line is neither a decision nor a question. Begin with “approved”, “rejected: why” or “sent back: ' +
        'why”, or end the question with “?”.'
      )
    case 'two answers':
      return 'It holds two decisions that do not go together. Write one.'
    case 'condition':
      return (
        'It approves under a condition, which Rekko cannot keep for you. Approve it as it is, or send it back and ' +
        'say what is to be changed.'
      )
    case 'reason missing':
      return 'It does not say why. Write the reason after the word: “rejected: why”.'
    case 'answered':
      return 'It was decided by an answer to that mail already.'
    case 'too old':
      return 'The mail that it answers is too old to decide by.'
    case 'sent again':
      return 'The request was sent again since that mail, and may say something else now.'
    case 'not by mail':
      return 'The approval policy does not have it decided by mail.'
    case 'second factor':
      return 'A second factor is asked of you when you sign in, which a mail does not show.'
  }
}
