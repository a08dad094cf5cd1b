import { addDays, businessDaysBetween, type Day } from '#core/base/day'
import type { CatalogueFilter, CatalogueItem } from '#shared/contract/catalogue'
import type { Context } from '../context'
import { invalid } from '../http/problem'
import { listHolidays, requireTerms } from '../settings/reads'
import { countItems, findHome, fits, listItems, type ItemFilter } from './browse-reads'
import type { ItemRow } from '../catalogue/reads'
import { listPaid } from '../order/paid-reads'
import { listFirstPictures } from '../catalogue/picture-store'
import { searchItems } from './search-reads'

/** The longest time that deliveries are looked at over, in business days. */
const MOST_LEAD_DAYS = 999

/** Items by words and filters: with words the closest first, without by name, page by page. */
export async function browseCatalogue(
  ctx: Context,
  asked: CatalogueFilter & { readonly after?: string | undefined; readonly limit: number },
): Promise<{ items: CatalogueItem[]; count: number; next: string | null }> {
  const { tx } = ctx
  const departmentId = asked.departmentId ?? (await findHome(tx, ctx.actor.id))
  const filter = fits(await filterOf(ctx, asked, departmentId))
  if (asked.words.trim() !== '') {
    const found = await searchItems(tx, asked.words, departmentId, asked.limit, filter)
    return { items: await withPaid(ctx, found), count: found.length, next: null }
  }
  const found = await listItems(tx, filter, markOf(asked.after), departmentId, asked.limit + 1)
  const page = found.slice(0, asked.limit)
  const last = page.at(-1)
  return {
    items: await withPaid(ctx, page),
    count: await countItems(tx, filter),
    next: found.length > page.length && last !== undefined ? `${last.id} ${last.name}` : null,
  }
}

/** Where a page begins: after an item that the page before ended with. */
function markOf(after: string | undefined): { id: string; name: string } | null {
  if (after === undefined) return null
  const found = /^([0-9a-f-]{36}) ([^]*)$/.exec(after)
  if (found === null) throw invalid('This page begins nowhere; go back to the first.')
  return { id: found[1] ?? '', name: found[2] ?? '' }
}

async function filterOf(
  { tx, now, actor }: Context,
  asked: CatalogueFilter,
  departmentId: string | null,
): Promise<ItemFilter> {
  const { today, perBase } = await requireTerms(tx, now)
  const { by, bought } = asked
  return {
    category: asked.category ?? null,
    supplier: asked.supplier ?? null,
    agreed: asked.agreement === undefined ? null : asked.agreement === 'yes',
    leadDays: by === undefined ? null : leadUntil(today, by, new Set(await listHolidays(tx, today, by))),
    from: asked.from ?? null,
    to: asked.to ?? null,
    today,
    perBase,
    boughtBy:
      bought === undefined
        ? null
        : bought === 'me' || departmentId === null
          ? { personId: actor.id }
          : { departmentId },
  }
}

/** How many business days a delivery may take to be here by a day; -1 where that is past. */
function leadUntil(today: Day, by: Day, holidays: ReadonlySet<Day>): number {
  if (by < today) return -1
  // A lead time of more business days has longer passed within so many days.
  const furthest = addDays(today, MOST_LEAD_DAYS * 2)
  return Math.min(MOST_LEAD_DAYS, businessDaysBetween(today, by < furthest ? by : furthest, holidays))
}

/** Items with what was last paid for each, and the picture that stands for it. */
export async function withPaid({ tx }: Context, items: readonly ItemRow[]): Promise<CatalogueItem[]> {
  const ids = items.map((i) => i.id)
  const paid = await listPaid(tx, ids, 1)
  const pictures = await listFirstPictures(tx, ids)
  return items.map((i) => ({ ...i, paid: paid.get(i.id)?.[0] ?? null, pictureId: pictures.get(i.id) ?? null }))
}
