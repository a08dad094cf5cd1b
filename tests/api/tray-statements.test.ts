import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { recording } from '../../scripts/bench/capture'
import { inTransaction } from '../../server/db/client'
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

test('laying lines of many requests on a tray, and taking them off, asks no more often than of few', async () => {
  const { db, pool, statements } = recording(rekko.url)
  const actor = await findActor(db, personId('Leonie Farrow'), moment())
  if (actor === null) throw new Error('no buyer')
  const counts: [laid: number, off: number][] = []
  for (const many of [2, 12]) {
    const lines = await approved(many)
    const parts = lines.map((lineId) => ({ lineId, quantity: null }))
    statements.length = 0
    const { orderId } = await inTransaction(db, (tx) =>
      layOnTray({ tx, now: moment(), actor }, { orderId: null, supplierId: null, parts }),
    )
    const laid = statements.length
    await inTransaction(db, (tx) => takeOffTray({ tx, now: moment(), actor }, orderId, null))
    counts.push([laid, statements.length - laid])
  }
  await pool.end()
  expect(counts[1]).toEqual(counts[0])
  expect(counts[0]?.[0]).toBeGreaterThan(5)
})
