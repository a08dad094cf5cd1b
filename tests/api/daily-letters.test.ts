import { afterAll, beforeAll, expect, test } from 'vitest'
import { REKKO } from '../../server/people/actor'
import { tellPerson } from '../../server/people/tell-person'
import { writeLetter } from '../../server/upkeep/daily-letters'
import { read } from '../../server/db/read'
import { outgoingMail } from '../../server/db/schema/mail'
import { sql } from 'drizzle-orm'
import { inTransaction } from '../../server/db/transaction'
import { sayTold } from '#shared/words/told'
import { waysOf } from '#shared/words/ways'
import { personId, TODAY } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let it: UseCases
const INES = personId('Ines Adeyemi')
const at = (time: string) => new Date(`${TODAY}T${time}Z`)
beforeAll(async () => {
  it = await openUseCases()
  await it.arrange("update person set mails_waiting = 'daily', mails_news = 'never' where id = $1", [INES])
  await it.arrange('delete from notice where person_id = $1', [INES])
})
afterAll(async () => {
  await it.stop()
})
const tell = (code: 'asked' | 'answered', now: Date) =>
  inTransaction(it.db, (tx) =>
    tellPerson(
      { tx, now, actor: REKKO },
      INES,
      { kind: 'requisition', id: crypto.randomUUID() },
      { code, number: null, title: 'Lamps', by: 'Owen Marsh', text: 'which?' },
      { path: '/mine' },
    ),
  )
const write = (now: Date) => inTransaction(it.db, (tx) => writeLetter(tx, INES, now))
const letters = () =>
  inTransaction(it.db, (tx) =>
    read(
      tx,
      { told: outgoingMail.told },
      sql`from ${outgoingMail} where ${outgoingMail.personId} = ${INES}
      order by ${outgoingMail.createdAt}`,
    ),
  )

test('one letter a day tells what waits, not what is not wanted; never before seven, never twice', async () => {
  await tell('asked', at('01:00:00'))
  await tell('answered', at('01:01:00'))
  await tell('asked', at('01:02:00'))
  await write(at('04:30:00'))
  expect(await letters()).toEqual([])
  await write(at('09:05:00'))
  const [letter] = await letters()
  expect(letter?.told).toMatchObject({ code: 'daily-letter', told: [{ code: 'asked' }, { code: 'asked' }], more: 0 })
  const { subject, sentence } = sayTold(letter?.told ?? { code: 'plain', subject: '', sentence: '' }, waysOf('en-GB'))
  expect(subject).toBe('Since your last letter: two things')
  expect(sentence.split('\n')).toHaveLength(2)
  // Told again on the same day, and the hour after: the next letter is tomorrow's.
  await tell('asked', at('09:30:00'))
  await write(at('10:05:00'))
  await write(at('15:05:00'))
  expect(await letters()).toHaveLength(1)
  const tomorrow = new Date(at('09:05:00').getTime() + 86_400_000)
  await write(tomorrow)
  expect((await letters()).map((l) => (l.told.code === 'daily-letter' ? l.told.told.length : 0))).toEqual([2, 1])
  // Nothing new makes no letter.
  await write(new Date(tomorrow.getTime() + 86_400_000))
  expect(await letters()).toHaveLength(2)
})
