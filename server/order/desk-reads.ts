import { sql, type SQL } from 'drizzle-orm'
import { addDays, type Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { Part } from '#core/people/rights'
import type { LineDiscount } from '#core/requisition/draft'
import type { DeskAsked } from '#shared/contract/order'
import { isKin } from '../catalogue/reads'
import type { Tx } from '../db/client'
import { holdsAll, isNumbered, likePattern } from '../db/pattern'
import { named, read, readOne, sure } from '../db/read'
import { item } from '../db/schema/catalogue'
import { remark } from '../db/schema/document'
import { requisitionLine } from '../db/schema/requisition'
import { person, shipTo } from '../db/schema/people'
import { supplier } from '../db/schema/supplier'
import { inPart, isAskedAbout, isOpenLine, requisitions, waitsOn } from '../requisition/visible'
import { SECONDS, UTC } from '../db/moments'

const l = named(requisitionLine, 'l')
const w = named(person, 'w')
const t = named(shipTo, 't')
const s = named(supplier, 's')
const r = requisitions('r')
const ask = named(remark, 'ask')
const said = named(remark, 'said')
const asker = named(person, 'asker')

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
  /** Its price was written by hand instead of the catalogue's. */
  isByHand: boolean
  /** What a buyer asked about it last, and what was answered. */
  asked: { by: string; at: string; text: string; isOpen: boolean; answer: string | null } | null
}

/** Which lines are asked for, on which day. */
export type DeskQuery = DeskAsked & { readonly today: Day }

const NEED_BY = sql<DeskLineRow['needBy']>`coalesce(${l.needBy}, ${r.needBy})::text`

const own = named(item, 'own')
const other = named(item, 'other')

/** That others too have what a line `l` asks for. */
const HAVE_SEVERAL = sql`exists (select from ${own} join ${other} on ${isKin(other, own)}
  where ${own.id} = ${l.itemId} and ${other.id} <> ${own.id} and not ${other.retired})`

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
    ...(known === 'any'
      ? []
      : [known === 'several' ? HAVE_SEVERAL : sql`(${l.supplierId} is null) = ${known === 'none'}`]),
    ...(shipToId === undefined ? [] : [sql`${r.shipToId} = ${shipToId}`]),
    ...(due === 'any' ? [] : [due === 'late' ? sql`${needed} < ${today}` : sql`${needed} <= ${addDays(today, 7)}`]),
  ]
}

/** That a line `l` waits, or that what is open of it is put aside, where these are asked for. */
const standsOn = ({ aside, today }: DeskQuery): SQL =>
  aside === 'no' ? waitsOn(l, today) : sql`(${isOpenLine(l)} and (${l.asideUntil} > ${today} or ${isAskedAbout(l)}))`

/** What is read of a line `l` of `r`, of a supplier `s`, asked for by `w` to go to `t`. */
const LINE = {
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
  isByHand: sql<boolean>`coalesce(${l.unitPrice} <> ${l.listPrice}, false)`,
  asked: sql<DeskLineRow['asked']>`(select json_build_object('by', ${asker.name}, 'at', ${UTC(ask.at)},
    'text', ${ask.text}, 'isOpen', ${ask.answeredAt} is null, 'answer', (select ${said.text} from ${said}
      where ${said.documentId} = ${ask.documentId} and ${said.kind} = 'answer'
        and ${said.at} = ${ask.answeredAt} limit 1))
    from ${ask} join ${asker} on ${asker.id} = ${ask.personId}
    where ${ask.lineId} = ${l.id} and ${ask.kind} = 'question' order by ${ask.at} desc limit 1)`,
}

/** Whoever asked for a line, where it goes, and its supplier. */
const AROUND = sql`join ${w} on ${w.id} = ${r.ownerId} join ${t} on ${t.id} = ${r.shipToId}
  left join ${s} on ${s.id} = ${l.supplierId}`

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
    LINE,
    sql`from open_line r join ${l} on ${l.requisitionId} = ${r.id} ${AROUND}
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

/** A line of the Desk, also one that is put aside; null where nothing of it is to be had in a part. */
export function findDeskLine(tx: Tx, part: Part, lineId: string): Promise<DeskLineRow | null> {
  return readOne(
    tx,
    LINE,
    sql`from ${r} join ${l} on ${l.requisitionId} = ${r.id} ${AROUND}
    where ${l.id} = ${lineId} and ${r.kind} = 'requisition' and ${r.state} in ('approved', 'part ordered')
      and ${inPart(part)} and ${isOpenLine(l)}`,
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
