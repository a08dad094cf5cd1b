import { expect } from 'vitest'
import type { Draft } from '#core/requisition/draft'
import { decide } from '../../server/approval/decide'
import { listOpenActors } from '../../server/approval/reads'
import { issueOrder } from '../../server/order/issue-order'
import { layOnTray } from '../../server/order/lay-tray'
import { findOrder } from '../../server/order/reads'
import { REQUISITION } from '../../server/requisition/kind'
import { findRequisition } from '../../server/requisition/reads'
import { createDraft } from '../../server/requisition/save-draft'
import { sendRequisition } from '../../server/requisition/send-requisition'
import { freeLine, soundDraft } from './rekko'
import type { UseCases } from './use-cases'

/** A buyer of the whole organisation who orders up to 3,000. */
const LEONIE = 'Leonie Farrow'

/** Ways from a need to an issued order, by the use cases alone. */
export function ordering(rekko: () => UseCases) {
  /** The line of a request that everybody approved. */
  async function approvedLine(price: string, owner = 'Owen Marsh', quantity = '1'): Promise<string> {
    const draft =
      owner === 'Harriet Voss'
        ? soundDraft(
            [{ text: 'Shelves', quantity: 1, price, unit: 'E48', account: '660', supplier: 'Harbour Waste' }],
            {},
            'Purchasing and Finance',
          )
        : soundDraft([], { lines: [freeLine(price, { quantity })] })
    return (await approved(draft, owner))[0] ?? expect.fail('it has a line')
  }
  /** The lines of a request of one's own that everybody approved. */
  async function approved(draft: Draft, owner = 'Owen Marsh'): Promise<string[]> {
    const id = crypto.randomUUID()
    await rekko().as(owner, (ctx) => createDraft(ctx, id, draft))
    await rekko().as(owner, (ctx) => sendRequisition(ctx, id, 1))
    const head = () => rekko().as(owner, (ctx) => findRequisition(ctx.tx, id))
    for (let kept = await head(); kept?.state === 'in approval'; kept = await head()) {
      const [next] = await rekko().as(owner, (ctx) => listOpenActors(ctx.tx, id))
      const version = kept.version
      await rekko().as(next?.name ?? '', (ctx) => decide(ctx, REQUISITION, id, version, 'approve', ''))
    }
    return (await head())?.lines.map((l) => l.id) ?? []
  }
  async function lay(lineIds: readonly string[], buyer: string = LEONIE): Promise<string> {
    const parts = lineIds.map((lineId) => ({ lineId, quantity: null }))
    return (await rekko().as(buyer, (ctx) => layOnTray(ctx, { orderId: null, supplierId: null, parts }))).orderId
  }
  async function issue(id: string, buyer: string = LEONIE): Promise<{ id: string; number: string; version: number }> {
    const { version } = (await rekko().as(buyer, (ctx) => findOrder(ctx.tx, id))) ?? expect.fail('the order is there')
    return rekko().as(buyer, (ctx) => issueOrder(ctx, id, version))
  }
  return { approvedLine, approved, lay, issue }
}
