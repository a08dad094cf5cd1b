import { sql, type SQL } from 'drizzle-orm'
import { addDays, type Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Part } from '#core/people/rights'
import type { LineDiscount } from '#core/requisition/draft'
import type { DeskAsked } from '#shared/contract/order'
import type { Tx } from '../db/client'
import { holdsAll, isNumbered, likePattern } from '../db/pattern'
import { named, read, sure } from '../db/read'
import { requisitionLine } from '../db/schema/requisition'
import { person, shipTo } from '../db/schema/people'
import { supplier } from '../db/schema/supplier'
import { inPart, isOpenLine, requisitions, waitsOn } from '../requisition/visible'
import { SECONDS } from '../db/moments'

const l = named(requisitionLine, 'l')
const w = named(person, 'w')
const t = named(shipTo, 't')
const s = named(supplier, 's')
const r = requisitions('r')

export interface DeskLineRow {
  id: string
  requisitionId: string
  number: string
  departmentId: string
  asker: string
  description: string
  itemId: string | null
  open: DecimalText
  unit: string
  unitPrice: DecimalText
  priceBase: DecimalText
  currency: string
  supplierId: string | null
  supplier: string | null
  freightFreeFrom: DecimalText | null
  needBy: string
  shipToId: string
  shipTo: string
  sentAt: string
  discountOf: LineDiscount['of'] | null
  discountValue: DecimalText | null
  requested: DecimalText
  noteInternal: string
  supplierStanding: string | null
  /** Put aside until then, and why. */
  asideUntil: string | null
  asideReason: string
}

/** Which lines are asked for, on which day. */
export type DeskQuery = DeskAsked & { readonly today: Day }

const NEED_BY = sql<DeskLineRow['needBy']>`coalesce(${l.needBy}, ${r.needBy})::text`

/** The conditions under which a line `l` of `r`, of a supplier `s` and asked for by `w`, is asked for; none for all. */
function conditionsOf({ words, supplier: known, shipToId, due, today }: DeskQuery): SQL[] {
  const looked = likePattern(words)
  const needed = sql`coalesce(${l.needBy}, ${r.needBy})`
  return [
    ...(words.trim() === ''
      ? []
      : [
          sql`(${isNumbered(r.number, looked)} or ${holdsAll(
            sql`(${l.description} || ' ' || coalesce(${s.name}, '') || ' ' || ${w.name})`,
            looked,
          )})`,
        ]),
    ...(known === 'any' ? [] : [sql`(${l.supplierId} is null) = ${known === 'none'}`]),
    ...(shipToId === undefined ? [] : [sql`${r.shipToId} = ${shipToId}`]),
    ...(due === 'any' ? [] : [due === 'late' ? sql`${needed} < ${today}` : sql`${needed} <= ${addDays(today, 7)}`]),
  ]
}

/** That a line `l` waits, or that what is open of it is put aside, where these are asked for. */
const standsOn = ({ aside, today }: DeskQuery): SQL =>
  aside === 'no' ? waitsOn(l, today) : sql`(${isOpenLine(l)} and ${l.asideUntil} > ${today})`

/** Approved lines with something open that lies on no tray, those of one supplier together, oldest first. */
export function listDeskLines(
  tx: Tx,
  part: Part,
  limit: number,
  query: DeskQuery | null = null,
): Promise<DeskLineRow[]> {
  const asked = query === null ? [] : conditionsOf(query)
  return read(
    tx,
    {
      id: l.id,
      requisitionId: r.id,
      number: sure(r.number),
      departmentId: sure(r.departmentId),
      asker: w.name,
      description: l.description,
      itemId: l.itemId,
      open: sql<DecimalText>`${l.quantity} - ${l.ordered} - ${l.cancelled} - ${l.onTray}`,
      unit: l.unit,
      unitPrice: sure(l.unitPrice),
      priceBase: l.priceBase,
      currency: l.currency,
      supplierId: l.supplierId,
      supplier: s.name,
      freightFreeFrom: s.freightFreeFrom,
      needBy: NEED_BY,
      discountOf: l.discountOf,
      discountValue: l.discount,
      requested: l.quantity,
      noteInternal: l.noteInternal,
      supplierStanding: s.standing,
      ...{ asideUntil: l.asideUntil, asideReason: l.asideReason },
      shipToId: sure(r.shipToId),
      shipTo: t.name,
      sentAt: SECONDS(r.sentAt),
    },
    sql`from open_line r join ${l} on ${l.requisitionId} = ${r.id} join ${w} on ${w.id} = ${r.ownerId}
      join ${t} on ${t.id} = ${r.shipToId} left join ${s} on ${s.id} = ${l.supplierId}
    where ${sql.join([query === null ? isOpenLine(l) : standsOn(query), ...asked], sql` and `)}
    order by ${s.name} nulls last, ${r.sentAt}, ${r.number}, ${l.position} limit ${limit}`,
    {
      before: sql`with open_line as materialized (
      select ${r.id}, ${r.number}, ${r.ownerId}, ${r.departmentId}, ${r.needBy}, ${r.shipToId}, ${r.sentAt} from ${r}
      where ${r.kind} = 'requisition' and ${r.state} in ('approved', 'part ordered') and ${inPart(part)}
      ${asked.length === 0 ? sql`order by ${r.sentAt}, ${r.number} limit ${limit}` : sql``})`,
    },
  )
}

/** Whoever asked for a line, and its supplier. */
const NAMED = sql`join ${w} on ${w.id} = ${r.ownerId} left join ${s} on ${s.id} = ${l.supplierId}`

/** How many lines wait on the Desk in all, counted up to one more than `most`. */
export async function countDeskLines(tx: Tx, part: Part, query: DeskQuery, most: number): Promise<number> {
  const asked = conditionsOf(query)
  const [found] = await read(
    tx,
    { n: sql<number>`count(*)::int` },
    sql`from (select 1 from ${r} join ${l} on ${l.requisitionId} = ${r.id}
      ${asked.length === 0 ? sql`` : NAMED}
      where ${r.kind} = 'requisition' and ${r.state} in ('approved', 'part ordered') and ${inPart(part)}
      and ${sql.join([standsOn(query), ...asked], sql` and `)}
      limit ${most + 1}) counted`,
  )
  return found?.n ?? 0
}
