import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { recording } from '../../scripts/bench/capture'
import { inTransaction } from '../../server/db/transaction'
import type { Context } from '../../server/context'
import { issueOrder } from '../../server/order/issue-order'
import { layOnTray, takeOffTray } from '../../server/order/lay-tray'
import { findActor } from '../../server/people/actor-reads'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { freeLine, moment, personId, soundDraft } from '../setup/rekko'
import { openUseCases, type UseCases } from '../setup/use-cases'

let rekko: UseCases
beforeAll(async () => {
  rekko = await openUseCases()
})
afterAll(() => rekko.stop())

/** Approved requests of one line each; the ids of the lines. */
async function approved(count: number): Promise<string[]> {
  const lines: string[] = []
  for (let i = 0; i < count; i += 1) {
    const [id, line] = [randomUUID(), freeLine('3')]
    await rekko.as('Owen Marsh', (ctx) => createDraft(ctx, id, { ...soundDraft([]), lines: [line] }))
    await rekko.as('Owen Marsh', (ctx) => sendRequisition(ctx, id, 1))
    lines.push(line.id)
  }
  return lines
}

test('lines of many requests are laid on a tray, taken off and ordered in no more statements than of few', async () => {
  const { db, pool, statements } = recording(rekko.url)
  const actor = await findActor(db, personId('Leonie Farrow'), moment())
  if (actor === null) throw new Error('no buyer')
  /** How many statements something takes. */
  const counted = async <T>(work: (ctx: Context) => Promise<T>): Promise<[T, number]> => {
    statements.length = 0
    return [await inTransaction(db, (tx) => work({ tx, now: moment(), actor })), statements.length]
  }
  const counts: [laid: number, off: number, issued: number][] = []
  for (const many of [2, 12]) {
    const parts = (await approved(many)).map((lineId) => ({ lineId, quantity: null }))
    const lay = () => counted((ctx) => layOnTray(ctx, { orderId: null, supplierId: null, parts }))
    const [{ orderId }, laid] = await lay()
    const [, off] = await counted((ctx) => takeOffTray(ctx, orderId, null))
    const [again] = await lay()
    const [, issued] = await counted((ctx) => issueOrder(ctx, again.orderId, 1))
    counts.push([laid, off, issued])
  }
  await pool.end()
  expect(counts[1]).toEqual(counts[0])
  expect(Math.min(...(counts[0] ?? []))).toBeGreaterThan(5)
})
