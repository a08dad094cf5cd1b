import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readAnswer, type Answer } from './answer'
import { ANSWER_LANGUAGES, ANSWER_WORDS } from './answer-words'

const read = (text: string) => readAnswer(text, 'Inès Adeyemi')
const approved = (comment = ''): Answer => ({ says: 'approved', comment })
const rejected = (comment: string): Answer => ({ says: 'rejected', comment })
const unclear = (why: Extract<Answer, { says: 'unclear' }>['why']): Answer => ({ says: 'unclear', why })

// Common practice, no source.
describe('a verdict', () => {
  test.each([
    ['Approved', approved()],
    ['  APPROVED!  ', approved()],
    ['*approved*', approved()],
    ['Approved, thanks.', approved()],
    ['Approved: order it this week.', approved('order it this week.')],
    ['Approved - order it this week', approved('order it this week')],
    ['Approved\n\nKind regards\nInès', approved()],
    ['Approved\nInès Adeyemi', approved()],
    ['Approved\nInes', approved()],
    ['Approved\n-- \nHead of Animal Care\nrejected: is in my signature', approved()],
    ['Genehmigt.\n\nMit freundlichen Grüßen\nI. Adeyemi', approved()],
    ['Freigegeben, danke', approved()],
    ['Approuvé', approved()],
    ['approuve', approved()],
    ['rejected: too dear', rejected('too dear')],
    ['Rejected: too dear.\nWe have two in store.', rejected('too dear. We have two in store.')],
    ['Rejected\n\nWe have two in store.\n\nBest\nI.', rejected('We have two in store.')],
    ['Abgelehnt: zu teuer', rejected('zu teuer')],
    ['Refusé : trop cher', rejected('trop cher')],
    ['rejected: why do we need it?', rejected('why do we need it?')],
    ['Sent back: name the size', { says: 'sent back', comment: 'name the size' }],
    ['Zurück: welche Größe?', { says: 'sent back', comment: 'welche Größe?' }],
    ['zurueckgegeben – Größe fehlt', { says: 'sent back', comment: 'Größe fehlt' }],
    ['Renvoyée: quelle taille ?', { says: 'sent back', comment: 'quelle taille ?' }],
  ] satisfies [string, Answer][])('%j', (text, answer) => {
    expect(read(text)).toEqual(answer)
  })
  test('each word of the table, in any case, alone or with a reason', () => {
    for (const language of ANSWER_LANGUAGES)
      for (const [says, words] of Object.entries(ANSWER_WORDS[language].says))
        for (const word of words)
          for (const said of [word, word.toUpperCase(), ` ${word}`])
            expect(read(`${said}: reason`), said).toEqual({ says, comment: 'reason' })
  })
})

describe('what is not certain', () => {
  test.each([
    ['', unclear('empty')],
    [' \n\n ', unclear('empty')],
    ['not approved', unclear('not understood')],
    ['nicht genehmigt', unclear('not understood')],
    ['I have approved worse', unclear('not understood')],
    ['approvedly', unclear('not understood')],
    ['approved or rejected', unclear('not understood')],
    ['ok', unclear('not understood')],
    ['I approve of the idea', unclear('not understood')],
    ['We will see.\napproved', unclear('not understood')],
    ['Approved\nRejected: too dear', unclear('two answers')],
    ['Rejected: too dear\n\nApproved', unclear('two answers')],
    ['Approved: if it comes this week', unclear('condition')],
    ['Approved, but only three', unclear('condition')],
    ['Genehmigt, aber nur drei', unclear('condition')],
    ['Approuvé, sauf la ligne 2', unclear('condition')],
    ['Approved\nbut only three', unclear('condition')],
    ['rejected', unclear('reason missing')],
    ['Sent back.\n\nKind regards\nInès', unclear('reason missing')],
  ] satisfies [string, Answer][])('%j', (text, answer) => {
    expect(read(text)).toEqual(answer)
  })
  test('a question is asked as it was written, over its lines', () => {
    expect(read('Does the price include\nfreight?')).toEqual({
      says: 'question',
      text: 'Does the price include freight?',
    })
    expect(read('Approved?')).toEqual({ says: 'question', text: 'Approved?' })
    expect(read('Who pays?\n\nIt is not in the budget.\n\nBest\nInès')).toEqual({
      says: 'question',
      text: 'Who pays?\n\nIt is not in the budget.',
    })
  })
  test('nothing that anybody writes before a verdict makes one of it', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[a-z]{2,12} [a-z ]{0,20}$/), (before) => {
        const answer = read(`${before} approved`)
        expect(answer.says).not.toBe('approved')
      }),
    )
  })
})
