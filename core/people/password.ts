/**
 * How long a password is, in characters: 15 at least where it is all that is asked for, and long ones are allowed.
 * What it is made of is not prescribed. Source: NIST SP 800-63B-4, 3.1.1.2 (from memory); OWASP ASVS 5.0, 6.2.
 */
export const PASSWORD_LENGTH = { least: 15, most: 200 } as const

/** Guesses after which a password counts as found out soon, as a power of ten: what is below is refused. */
const FEWEST_GUESSES = 8

/** Why a password is easily guessed. */
export type Guessed = 'common' | 'own-words' | 'pattern'

/** Why a new password is not taken. */
export type PasswordReason =
  | { readonly code: 'too-short'; readonly least: number; readonly has: number }
  | { readonly code: 'too-long'; readonly most: number }
  | { readonly code: 'as-before' }
  | { readonly code: 'easily-guessed'; readonly because: Guessed }

/** A password the way it is compared: what looks alike is written alike (RFC 8265, 4.2), and nothing else changes. */
export const passwordText = (typed: string): string => typed.normalize('NFKC')

/** Why a new password is not taken by its length or because it is the one of before; what can be said at once. */
export function passwordShape(typed: string, before: string | null): PasswordReason[] {
  const has = [...passwordText(typed)].length
  if (has < PASSWORD_LENGTH.least) return [{ code: 'too-short', least: PASSWORD_LENGTH.least, has }]
  if (has > PASSWORD_LENGTH.most) return [{ code: 'too-long', most: PASSWORD_LENGTH.most }]
  return before !== null && passwordText(typed) === passwordText(before) ? [{ code: 'as-before' }] : []
}

/**
 * Why a new password is not taken, first reason first; `guesses` is how many guesses it takes as a power of ten, and
 * why not more.
 */
export function judgePassword(
  typed: string,
  before: string | null,
  guess: { readonly guesses: number; readonly because: Guessed },
): PasswordReason[] {
  const shape = passwordShape(typed, before)
  if (shape.length > 0 || guess.guesses >= FEWEST_GUESSES) return shape
  return [{ code: 'easily-guessed', because: guess.because }]
}
