import type { Guessed } from '#core/people/password'

type Estimator = InstanceType<(typeof import('@zxcvbn-ts/core'))['ZxcvbnFactory']>
/** What is neither letter nor figure. */
const APART = /[^\p{L}\p{N}]+/gu

let made: Promise<Estimator> | null = null

/** The lists of common passwords are read when the first password is changed: most servers never need them. */
const estimator = () =>
  (made ??= Promise.all([import('@zxcvbn-ts/core'), import('@zxcvbn-ts/language-common')]).then(
    ([{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }]) =>
      new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs, maxLength: 100 }),
  ))

/**
 * How many guesses a password takes, as a power of ten, for somebody who knows the commonest 49,000 and the words
 * given; and what most of it is made of.
 */
export async function guessPassword(
  typed: string,
  words: readonly string[],
): Promise<{ guesses: number; because: Guessed }> {
  const own = words
    .flatMap((w) => [w, ...w.split(APART)])
    .filter((w) => w.length > 2)
    .toSorted((a, b) => b.length - a.length)
  const besides = own.reduce((left, w) => left.replaceAll(w.toLowerCase(), ''), typed.toLowerCase())
  // What stands between words hides them from the lists and from nobody else.
  const [asTyped, together, rest] = [typed, typed.replace(APART, ''), besides.replace(APART, '')]
  const e = await estimator()
  const results = [asTyped, together].map((t) => e.check(t, own))
  const easiest = results.toSorted((a, b) => a.guessesLog10 - b.guessesLog10)[0]
  const longest = easiest?.sequence.toSorted((a, b) => b.token.length - a.token.length)[0]
  const found = { guesses: easiest?.guessesLog10 ?? 0, because: longest === undefined ? 'pattern' : madeOf(longest) }
  if (rest.length === together.length) return found
  const restGuesses = e.check(rest).guessesLog10
  return restGuesses < found.guesses ? { guesses: restGuesses, because: 'own-words' } : found
}

function madeOf(match: { pattern: string; dictionaryName?: unknown }): Guessed {
  if (match.pattern !== 'dictionary') return 'pattern'
  return match.dictionaryName === 'userInputs' ? 'own-words' : 'common'
}
