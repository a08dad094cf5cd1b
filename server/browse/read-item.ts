import type { ItemPage } from '#shared/contract/catalogue'
import type { Context } from '../context'
import { notFound } from '../http/problem'
import { withPaid } from './browse-catalogue'
import { findKin, listAskers, listTogether } from './browse-reads'
import { listPaid } from '../order/paid-reads'
import { listPictures } from '../catalogue/picture-store'
import { findItems, listPriceSteps } from '../catalogue/reads'

const MOST_ASKERS = 8
const MOST_TOGETHER = 5
const MOST_PAID = 8

/** An item with all that is known of it: prices, the same of others, who asks for it, what stands with it. */
export async function readItem(ctx: Context, id: string): Promise<ItemPage> {
  const { tx } = ctx
  const kin = await findKin(tx, id)
  const found = await findItems(tx, [id, ...kin.others])
  const [item, ...others] = await withPaid(ctx, [
    ...found.filter((i) => i.id === id),
    ...found.filter((i) => i.id !== id),
  ])
  if (item?.id !== id) throw notFound('This item')
  return {
    item,
    others,
    successor: kin.successor,
    steps: [...((await listPriceSteps(tx, [id])).get(id) ?? [])],
    askedBy: await listAskers(tx, id, MOST_ASKERS),
    together: await listTogether(tx, id, MOST_TOGETHER),
    paid: (await listPaid(tx, [id], MOST_PAID)).get(id) ?? [],
    pictures: (await listPictures(tx, id)).map((p) => ({ id: p.id, name: p.name })),
  }
}
