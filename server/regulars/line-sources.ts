import { waysOf, type Ways } from '#shared/words/ways'
import { dayOf, type Day } from '#core/base/day'
import type { LineSource } from '#core/requisition/line-source'
import type { SourceGroup, SourceLine } from '#shared/contract/regulars'
import { findItems, type ItemRow } from '../catalogue/reads'
import type { Context } from '../context'
import { listOpenDepartments } from '../people/place-reads'
import { requireOrganisation } from '../settings/reads'
import { listBought, listOrderLinesToTake, listRequestLines, type OldLine } from './old-line-reads'
import { listRegularEntries, listRegularLists } from './list-reads'
import { listTemplateRows, readSupplierNames } from './template-reads'

interface Query {
  readonly departmentIds: readonly string[]
  readonly words: string
  readonly today: Day
}
type ReadSource = (ctx: Context, q: Query) => Promise<SourceGroup[]>

const MOST_GROUPS = 15
const MOST_BOUGHT = 60

/** What each source offers. A new one is named in the core and reads itself here. */
const SOURCES: Record<LineSource, ReadSource> = {
  regulars: async ({ tx, actor }, q) => {
    const lists = await listRegularLists(tx, actor.id, q.departmentIds)
    const entries = await listRegularEntries(
      tx,
      lists.map((l) => l.id),
    )
    return lists.map((l) => ({
      id: l.id,
      name: l.name,
      note: l.department ?? 'your own',
      lines: entries
        .filter((e) => e.listId === l.id && holds(e.description, q.words))
        .map(({ id: _, listId: __, supplier, ...e }) => ({ ...e, account: null, note: supplier ?? '' })),
    }))
  },
  bought: async ({ tx, actor }, q) =>
    grouped(await listBought(tx, q.departmentIds, q.words, MOST_BOUGHT), q.today, waysOf(actor.locale)),
  requests: async (ctx, q) =>
    grouped(
      await listRequestLines(ctx.tx, ctx, q.departmentIds, q.words, MOST_GROUPS),
      q.today,
      waysOf(ctx.actor.locale),
    ),
  orders: async (ctx, q) =>
    grouped(
      await listOrderLinesToTake(ctx.tx, ctx, q.departmentIds, q.words, MOST_GROUPS),
      q.today,
      waysOf(ctx.actor.locale),
    ),
  templates: async ({ tx, actor }, q) =>
    (await listTemplateRows(tx, actor.id, q.departmentIds))
      .filter((t) => holds(t.name, q.words) || t.draft.lines.some((l) => holds(l.description, q.words)))
      .map((t) => ({
        id: t.id,
        name: t.name,
        note: t.department === null ? 'your own' : `${t.owner}, for ${t.department}`,
        lines: t.draft.lines.map((l): SourceLine => ({
          itemId: l.itemId,
          categoryId: l.categoryId,
          description: l.description,
          secondDescription: l.secondDescription,
          quantity: l.quantity,
          unit: l.unit,
          unitPrice: l.unitPrice,
          priceBase: l.priceBase,
          currency: l.currency,
          taxCode: l.taxCode,
          supplierId: l.supplierId,
          supplierPart: l.supplierPart,
          account: null,
          note: '',
        })),
      })),
}

const holds = (text: string, words: string) =>
  words.trim() === '' || text.toLowerCase().includes(words.trim().toLowerCase())

function grouped(lines: readonly OldLine[], today: Day, ways: Ways): SourceGroup[] {
  const groups = new Map<string, SourceGroup>()
  const dated = (note: string, day: Day | null) =>
    [note, ...(day === null ? [] : [ways.shortDate(day, today)])].filter((t) => t !== '').join(', ')
  for (const { groupId, groupName, groupNote, groupDay, note, day, ...line } of lines) {
    const group = groups.get(groupId) ?? { id: groupId, name: groupName, note: dated(groupNote, groupDay), lines: [] }
    groups.set(groupId, { ...group, lines: [...group.lines, { ...line, note: dated(note, day) }] })
  }
  return [...groups.values()]
}

/**
 * The lines that a source offers, in groups that can be taken whole, with the catalogue items among them as they are
 * today.
 */
export async function readLineSource(
  ctx: Context,
  source: LineSource,
  q: { readonly departmentId?: string | undefined; readonly words: string },
): Promise<{ groups: SourceGroup[]; items: ItemRow[]; suppliers: Record<string, string> }> {
  const { timeZone } = await requireOrganisation(ctx.tx)
  const open = (await listOpenDepartments(ctx.tx, ctx.actor.id)).map((d) => d.id)
  const departmentIds = q.departmentId !== undefined && open.includes(q.departmentId) ? [q.departmentId] : open
  const groups = (
    await SOURCES[source](ctx, { departmentIds, words: q.words, today: dayOf(ctx.now, timeZone) })
  ).filter((g) => g.lines.length > 0)
  const lines = groups.flatMap((g) => g.lines)
  return {
    groups,
    items: await findItems(ctx.tx, [...new Set(lines.flatMap((l) => l.itemId ?? []))]),
    suppliers: await readSupplierNames(ctx.tx, [...new Set(lines.flatMap((l) => l.supplierId ?? []))]),
  }
}
