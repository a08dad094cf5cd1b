import { expect, test } from 'vitest'
import { z } from 'zod'
import { cutReply } from './cut-reply'

const person = z.object({ id: z.string(), name: z.string().optional() })

test('what a description does not name is cut away, at every depth', () => {
  const schema = z.object({
    people: z.array(person),
    first: person.nullable(),
    by: z.record(z.string(), person),
    pair: z.tuple([z.string(), person]),
    kind: z.discriminatedUnion('on', [
      z.object({ on: z.literal('a'), a: person }),
      z.object({ on: z.literal('b'), b: z.number().default(1) }),
    ]),
  })
  const owen = { id: '1', name: 'Owen', limit: '250' }
  const sound = { id: '1', name: 'Owen' }
  expect(
    cutReply(schema, {
      people: [owen, { id: '2', secret: true }],
      first: owen,
      by: { x: owen },
      pair: ['one', owen],
      kind: { on: 'a', a: owen, b: 2 },
      more: 'nothing',
    }),
  ).toEqual({
    people: [sound, { id: '2' }],
    first: sound,
    by: { x: sound },
    pair: ['one', sound],
    kind: { on: 'a', a: sound },
  })
})

test('it cuts and does not check: an odd row goes through, and so does what has no description', () => {
  const amount = z.object({ amount: z.string().refine((t) => t.length < 5) })
  expect(cutReply(z.array(amount), [{ amount: '1234567', more: 1 }, null, 'text'])).toEqual([
    { amount: '1234567' },
    null,
    'text',
  ])
  expect(cutReply(z.looseObject({}), { any: 1 })).toEqual({ any: 1 })
  expect(cutReply(z.strictObject({ a: z.number() }), { a: 1, b: 2 })).toEqual({ a: 1 })
  expect(cutReply(z.custom<object>(), { any: { thing: 1 } })).toEqual({ any: { thing: 1 } })
})
