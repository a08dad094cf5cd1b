import { sql, type SQL } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import { completeDraft, type Draft } from '#core/requisition/draft'
import type { Rhythm } from '#core/requisition/rhythm'
import type { Tx } from '../db/client'
import { likePattern } from '../db/pattern'
import { row, rows } from '../db/rows'
import { ORDERS, SEEN_ORDERS } from '../order/visible'
import { visible, type Reader } from '../document/visible'
import { REQUISITIONS, SEEN_REQUISITIONS } from '../requisition/visible'

/** A line as it was bought or kept, with what tells it apart. */
export interface OldLine {
  groupId: string
  groupName: string
  groupNote: string
  /** The day of its group, and of the line itself where lines stand without one. */
  groupDay: Day | null
  itemId: string | null
  categoryId: string | null
  description: string
  secondDescription: string
  quantity: DecimalText
  unit: string
  unitPrice: DecimalText | null
  priceBase: DecimalText
  currency: string
  taxCode: string
  supplierId: string | null
  supplierPart: string | null
  account: string | null
  note: string
  day: Day | null
}

/** What of an old line a new one takes over. */
export function asLine(l: OldLine) {
  return {
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
  }
}

const LINE = sql`l.item_id as "itemId", l.category_id as "categoryId", l.description,
  l.second_description as "secondDescription", l.quantity, l.unit, l.unit_price as "unitPrice",
  l.price_base as "priceBase", l.currency, l.tax_code as "taxCode", l.supplier_id as "supplierId",
    l.supplier_part as "supplierPart",
  (select b.account_code from requisition_coding c join budget_line b on b.id = c.budget_line_id
    where c.line_id = l.id order by c.position limit 1) as account`
const RECENT = 3000
const holds = (words: string, ...columns: SQL[]) =>
  words.trim() === ''
    ? sql`true`
    : sql.join(
        columns.map((c) => sql`${c} ilike ${likePattern(words.trim()).anywhere}`),
        sql` or `,
      )

/** What a department bought last, each thing once, the newest first. */
export function listBought(tx: Tx, departmentIds: readonly string[], words: string, limit: number): Promise<OldLine[]> {
  return rows<OldLine>(
    tx,
    sql`
    with recent as (
      select l.*, r.number, r.sent_at from requisition_line l join (
        select id, number, sent_at from ${REQUISITIONS} r
          where department_id = any(${sql.param([...departmentIds])}::uuid[]) and state in ('approved',
          'part ordered', 'ordered', 'closed')
        order by sent_at desc limit ${RECENT}) r on r.id = l.requisition_id
          where ${holds(words, sql`l.description`, sql`l.supplier_part`)}),
    once as (select distinct on (coalesce(item_id::text, lower(description))) * from recent
      order by coalesce(item_id::text, lower(description)), sent_at desc)
    select 'bought' as "groupId", '' as "groupName", '' as "groupNote", null as "groupDay", ${LINE}, l.number as note,
      l.sent_at::date::text as day
    from once l order by l.sent_at desc, l.description limit ${limit}`,
  )
}

/** The lines of the newest requests that a person sees. */
export function listRequestLines(
  tx: Tx,
  reader: Reader,
  departmentIds: readonly string[],
  words: string,
  limit: number,
): Promise<OldLine[]> {
  return rows<OldLine>(
    tx,
    sql`
    with page as (
      select r.id, r.number, r.title, r.sent_at from ${REQUISITIONS} r
      where r.number is not null and (r.owner_id = ${reader.actor.id}
        or r.department_id = any(${sql.param([...departmentIds])}::uuid[])) and ${visible(SEEN_REQUISITIONS, reader)}
        and (${holds(words, sql`r.title`, sql`r.number`)} or exists (select 1 from requisition_line q
          where q.requisition_id = r.id and (${holds(words, sql`q.description`)})))
      order by r.sent_at desc limit ${limit})
    select r.id as "groupId", r.title as "groupName", r.number as "groupNote", r.sent_at::date::text as "groupDay",
      ${LINE}, '' as note, null as day
    from page r join requisition_line l on l.requisition_id = r.id order by r.sent_at desc, r.id, l.position`,
  )
}

const ORDER_LINE = sql`l.item_id as "itemId", i.category_id as "categoryId", l.description,
  l.second_description as "secondDescription", l.quantity, l.unit, l.unit_price as "unitPrice",
  l.price_base as "priceBase", o.currency, l.tax_code as "taxCode", o.supplier_id as "supplierId",
    l.supplier_part as "supplierPart",
  (select b.account_code from order_line_source x join requisition_coding c on c.line_id = x.requisition_line_id
    join budget_line b on b.id = c.budget_line_id
    where x.order_line_id = l.id order by c.position limit 1) as account`

/** The lines of the newest orders that a person sees; of one order where it is named. */
export function listOrderLinesToTake(
  tx: Tx,
  reader: Reader,
  words: string,
  limit: number,
  orderId: string | null = null,
): Promise<OldLine[]> {
  return rows<OldLine>(
    tx,
    sql`
    with page as (
      select o.id, o.number, o.currency, o.supplier_id, s.name, o.sent_at from ${ORDERS} o
        join supplier s on s.id = o.supplier_id
      where o.number is not null ${orderId === null ? sql`` : sql`and o.id = ${orderId}`}
        and ${visible(SEEN_ORDERS, reader)}
        and (${holds(words, sql`o.number`, sql`s.name`)} or exists (select 1 from order_line q
          where q.order_id = o.id and (${holds(words, sql`q.description`)})))
      order by o.sent_at desc limit ${limit})
    select o.id as "groupId", o.number || ' to ' || o.name as "groupName", '' as "groupNote",
      o.sent_at::date::text as "groupDay", ${ORDER_LINE}, '' as note, null as day
    from page o join order_line l on l.order_id = o.id left join item i on i.id = l.item_id order by o.sent_at desc,
      o.id, l.position`,
  )
}

/** The account from which a department last paid what is called most alike; null where nothing is. */
export async function findUsualAccount(tx: Tx, departmentId: string, words: string): Promise<string | null> {
  const found = await row<{ account: string }>(
    tx,
    sql`
    with recent as (select id from ${REQUISITIONS} r where department_id = ${departmentId}
      and number is not null order by sent_at desc nulls last limit 1000),
    alike as (select l.id, similarity(lower(l.description), ${words.toLowerCase()}) as likeness, r.id as rid
      from recent r join requisition_line l on l.requisition_id = r.id)
    select b.account_code as account from alike a join requisition_coding c on c.line_id = a.id and c.position = 0
      join budget_line b on b.id = c.budget_line_id
    where a.likeness >= 0.4 order by a.likeness desc limit 1`,
  )
  return found?.account ?? null
}

export interface RegularListRow {
  id: string
  version: number
  name: string
  ownerId: string | null
  departmentId: string | null
  department: string | null
}
const LIST = sql`g.id, g.version, g.name, g.owner_id as "ownerId", g.department_id as "departmentId",
  d.name as department`

/** A person's own lists and those of departments, their own first. */
export function listRegularLists(
  tx: Tx,
  personId: string,
  departmentIds: readonly string[],
): Promise<RegularListRow[]> {
  return rows<RegularListRow>(
    tx,
    sql`
    select ${LIST} from regular_list g left join department d on d.id = g.department_id
    where g.owner_id = ${personId} or g.department_id = any(${sql.param([...departmentIds])}::uuid[])
      order by g.owner_id is null, d.name, g.name`,
  )
}

export function lockRegularList(tx: Tx, id: string): Promise<RegularListRow | null> {
  return row<RegularListRow>(
    tx,
    sql`select ${LIST} from regular_list g left join department d on d.id = g.department_id
      where g.id = ${id} for update of g`,
  )
}

export interface RegularRow extends Omit<
  OldLine,
  'groupId' | 'groupName' | 'groupNote' | 'groupDay' | 'account' | 'note' | 'day'
> {
  id: string
  listId: string
  supplier: string | null
}
/** What stands on lists, in their order. */
export function listRegularEntries(tx: Tx, listIds: readonly string[]): Promise<RegularRow[]> {
  return rows<RegularRow>(
    tx,
    sql`
    select e.id, e.list_id as "listId", e.item_id as "itemId", i.category_id as "categoryId", e.description,
      '' as "secondDescription", e.quantity, e.unit, e.unit_price as "unitPrice",
      e.price_base as "priceBase", e.currency, e.tax_code as "taxCode", e.supplier_id as "supplierId",
        e.supplier_part as "supplierPart", s.name as supplier
    from regular e left join supplier s on s.id = e.supplier_id left join item i on i.id = e.item_id
    where e.list_id = any(${sql.param([...listIds])}::uuid[]) order by e.list_id, e.position`,
  )
}

export interface TemplateRow {
  id: string
  version: number
  name: string
  ownerId: string
  owner: string
  departmentId: string | null
  department: string | null
  draft: Draft
  repeats: Rhythm | null
  startsOn: Day | null
  nextOn: Day | null
  sendsItself: boolean
  neededAfter: number
}
const TEMPLATE = sql`t.id, t.version, t.name, t.owner_id as "ownerId", p.name as owner,
  t.department_id as "departmentId", d.name as department, t.draft, t.repeats,
  t.starts_on::text as "startsOn", t.next_on::text as "nextOn", t.sends_itself as "sendsItself",
    t.needed_after as "neededAfter"`
const complete = (t: TemplateRow): TemplateRow => ({ ...t, draft: completeDraft(t.draft) })

/** A person's own templates and those shared with departments. */
export async function listTemplateRows(
  tx: Tx,
  personId: string,
  departmentIds: readonly string[],
): Promise<TemplateRow[]> {
  return (
    await rows<TemplateRow>(
      tx,
      sql`
    select ${TEMPLATE} from template t join person p on p.id = t.owner_id left
      join department d on d.id = t.department_id
    where t.owner_id = ${personId} or t.department_id = any(${sql.param([...departmentIds])}::uuid[])
      order by t.owner_id <> ${personId}, t.name, t.id`,
    )
  ).map(complete)
}

/** A template; `lock` takes its row. */
export async function findTemplate(tx: Tx, id: string, lock = false): Promise<TemplateRow | null> {
  const found = await row<TemplateRow>(
    tx,
    sql`
    select ${TEMPLATE} from template t join person p on p.id = t.owner_id left
      join department d on d.id = t.department_id where t.id = ${id} ${lock ? sql`for update of t` : sql``}`,
  )
  return found === null ? null : complete(found)
}

/** Templates whose day has come. */
export function listDueTemplates(tx: Tx, today: Day): Promise<{ id: string }[]> {
  return rows(tx, sql`select id from template where next_on <= ${today} order by next_on, id limit 500`)
}

/** The budget line of a year for each of some of any year: the same department, account and project. */
export async function findBudgetLinesOfYear(
  tx: Tx,
  ids: readonly string[],
  year: number,
): Promise<Map<string, string>> {
  const found = await rows<{ was: string; now: string }>(
    tx,
    sql`
    select o.id as was, n.id as now from budget_line o join budget_line n on n.department_id = o.department_id
      and n.account_code = o.account_code
      and n.project_code is not distinct from o.project_code and n.fiscal_year = ${year}
    where o.id = any(${sql.param([...ids])}::uuid[])`,
  )
  return new Map(found.map((f) => [f.was, f.now]))
}

export async function readSupplierNames(tx: Tx, ids: readonly string[]): Promise<Record<string, string>> {
  const found =
    ids.length === 0
      ? []
      : await rows<{ id: string; name: string }>(
          tx,
          sql`select id, name from supplier where id = any(${sql.param([...ids])}::uuid[])`,
        )
  return Object.fromEntries(found.map((s) => [s.id, s.name]))
}
