import { expect, test } from 'vitest'
import { guessPassword } from './guess-password'

const OURS = ['Owen Marsh', 'owen.marsh@hallamere.example', 'Hallamere Oceanarium', 'Rekko']
const judge = async (typed: string) => {
  const { guesses, because } = await guessPassword(typed, OURS)
  return guesses < 8 ? because : 'hard'
}

test.each([
  ['passwordpassword1', 'pattern'],
  ['qwertyuiopasdfgh', 'common'],
  ['aaaaaaaaaaaaaaaa', 'pattern'],
  ['1234567890123456', 'common'],
  ['hallamereoceanarium', 'own-words'],
  ['Hallamere-Oceanarium-26', 'own-words'],
  ['owen.marsh.rekko', 'own-words'],
  ['owenmarsh.owenmarsh', 'own-words'],
  ['sea-salt-and-patience', 'hard'],
  ['seven wet otters sing', 'hard'],
  ['ヒトデがさんびきいる、そしてくじら', 'hard'],
])('%s is %s', async (typed, because) => {
  expect(await judge(typed)).toBe(because)
})
test('nothing typed is guessed at once, and a very long one does not take long', async () => {
  expect((await guessPassword('', OURS)).guesses).toBe(0)
  expect((await guessPassword('ab1-'.repeat(50), OURS)).because).toBe('pattern')
})
