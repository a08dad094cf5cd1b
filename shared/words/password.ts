import type { Guessed, PasswordReason } from '#core/people/password'
import { formatCount } from './format'

const BECAUSE: Record<Guessed, string> = {
  common: 'it is made of passwords that many people have',
  'own-words': 'it is made of your name, your address or the organisation’s',
  pattern: 'it repeats itself or follows the keys',
}

/** Why a new password is not taken, as a sentence that says what would be. */
export function sayPasswordReason(r: PasswordReason): string {
  switch (r.code) {
    case 'too-short':
      return `A password has at least ${r.least} characters; a few words you like will do. This has ${formatCount(
        r.has,
        'character',
        'characters',
      )}.`
    case 'too-long':
      return `A password has at most ${r.most} characters.`
    case 'as-before':
      return 'This is the password you have.'
    case 'easily-guessed':
      return `It would soon be guessed: ${BECAUSE[r.because]}. Add a word or two that nobody would expect.`
  }
}
