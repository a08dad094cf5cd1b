import { sql } from 'drizzle-orm'
import type { Day } from '#core/base/day'
import type { DecimalText } from '#core/base/decimal'
import type { RequisitionState } from '#core/requisition/moves'
import type { Tx } from '../db/client'
import { holdsAll, likePattern } from '../db/pattern'
import { named, read, readOne } from '../db/read'
import { budgetLine } from '../db/schema/budget'
import { document } from '../db/schema/document'
import { jobPart, jobPartLine, jobPerson, jobPlan } from '../db/schema/job'
import { orderLine, orderLineSource, purchaseOrder } from '../db/schema/order'
import { department, person, shipTo } from '../db/schema/people'
import { job } from '../db/schema/request-form'
import { requisitionLine } from '../db/schema/requisition'

const j = named(job, 'j')
const h = named(department, 'h')
const v = named(jobPlan, 'v')
const w = named(jobPerson, 'w')
const p = named(person, 'p')
const a = named(jobPart, 'a')
const x = named(jobPartLine, 'x')
const l = named(requisitionLine, 'l')
const d = named(document, 'd')
const st = named(shipTo, 'st')
const bl = named(budgetLine, 'bl')
const os = named(orderLineSource, 'os')
const ol = named(orderLine, 'ol')
const po = named(purchaseOrder, 'po')
const od = named(document, 'od')

export interface JobRow {
  id: string
  number: string
  name: string
  departmentId: string | null
  department: string | null
  isOpen: boolean
  parts: number
  isIn: boolean
}
const JOB = (personId: string) => ({
  id: j.id,
  number: j.number,
  name: j.name,
  departmentId: j.departmentId,
  department: h.name,
  isOpen: j.isOpen,
  parts: sql<number>`(select count(*)::int from ${a} where ${a.jobId} = ${j.id})`,
  isIn: sql<boolean>`exists (select 1 from ${w} where ${w.jobId} = ${j.id} and ${w.personId} = ${personId})`,
})
const FROM = sql`from ${j} left join ${h} on ${h.id} = ${j.departmentId}`

/** Jobs by words of their number and name: one's own first, then those that are open. */
export function listJobs(tx: Tx, personId: string, words: string, most: number): Promise<JobRow[]> {
  const wanted = likePattern(words)
  return read(
    tx,
    JOB(personId),
    sql`${FROM} where ${holdsAll(sql`concat_ws(' ', ${j.number}, ${j.name}, ${h.name})`, wanted)}
      order by exists (select 1 from ${w} where ${w.jobId} = ${j.id} and ${w.personId} = ${personId}) desc,
        ${j.isOpen} desc, ${j.number} limit ${most}`,
  )
}
export const findJob = (tx: Tx, personId: string, id: string): Promise<JobRow | null> =>
  readOne(tx, JOB(personId), sql`${FROM} where ${j.id} = ${id}`)

export interface PlanRow {
  version: number
  startsOn: Day | null
  endsOn: Day | null
  shipToId: string | null
  shipTo: string | null
  budgetLineId: string | null
  budgetLine: string | null
}
/** What is planned for a job; null while nothing is. `lock` takes its row. */
export function findPlan(tx: Tx, jobId: string, lock = false): Promise<PlanRow | null> {
  return readOne(
    tx,
    {
      version: v.version,
      startsOn: v.startsOn,
      endsOn: v.endsOn,
      shipToId: v.shipToId,
      shipTo: st.name,
      budgetLineId: v.budgetLineId,
      budgetLine: bl.name,
    },
    sql`from ${v} left join ${st} on ${st.id} = ${v.shipToId} left join ${bl} on ${bl.id} = ${v.budgetLineId}
      where ${v.jobId} = ${jobId} ${lock ? sql`for update of v` : sql``}`,
  )
}

export function listJobPeople(tx: Tx, jobId: string): Promise<{ id: string; name: string; jobTitle: string }[]> {
  return read(
    tx,
    { id: p.id, name: p.name, jobTitle: p.jobTitle },
    sql`from ${w} join ${p} on ${p.id} = ${w.personId} where ${w.jobId} = ${jobId} order by ${p.name}`,
  )
}

export interface PartRow {
  id: string
  number: string
  itemId: string | null
  description: string
  quantity: DecimalText
  unit: string
  estimate: DecimalText | null
}
export function listParts(tx: Tx, jobId: string): Promise<PartRow[]> {
  return read(
    tx,
    {
      id: a.id,
      number: a.number,
      itemId: a.itemId,
      description: a.description,
      quantity: sql<DecimalText>`trim_scale(${a.quantity})::text`,
      unit: a.unit,
      estimate: sql<DecimalText | null>`trim_scale(${a.estimate})::text`,
    },
    sql`from ${a} where ${a.jobId} = ${jobId} order by ${a.position}`,
  )
}

export interface PartLineRow {
  partId: string
  requisitionId: string
  number: string | null
  state: RequisitionState
  quantity: DecimalText
  cancelled: DecimalText
  ordered: DecimalText
}
/** The lines of requisitions that ask for the parts of a job. */
export function listPartLines(tx: Tx, jobId: string): Promise<PartLineRow[]> {
  return read(
    tx,
    {
      partId: x.partId,
      requisitionId: l.requisitionId,
      number: d.number,
      // A direct order stands, for whoever plans, as a request for the same would.
      state: sql<RequisitionState>`case when ${d.kind} = 'requisition' then ${d.state}
        when ${d.number} is not null then 'ordered' when ${d.state} = 'approved' then 'in approval'
        else ${d.state} end`,
      quantity: l.quantity,
      cancelled: l.cancelled,
      ordered: l.ordered,
    },
    sql`from ${a} join ${x} on ${x.partId} = ${a.id} join ${l} on ${l.id} = ${x.lineId}
      join ${d} on ${d.id} = ${l.requisitionId} where ${a.jobId} = ${jobId} order by ${d.createdAt}`,
  )
}

export interface OrderedRow {
  quantity: DecimalText
  unitPrice: DecimalText
  priceBase: DecimalText
  currency: string
  perBase: DecimalText
}
/** What was ordered along the lines that name a job, its parts and all else: portions of order lines. */
export function listOrderedFor(tx: Tx, jobId: string): Promise<OrderedRow[]> {
  return read(
    tx,
    {
      quantity: os.quantity,
      unitPrice: ol.unitPrice,
      priceBase: ol.priceBase,
      currency: po.currency,
      perBase: sql<DecimalText>`coalesce(${po.perBase}, 1)::text`,
    },
    sql`from ${l} join ${os} on ${os.requisitionLineId} = ${l.id} join ${ol} on ${ol.id} = ${os.orderLineId}
      join ${po} on ${po.id} = ${ol.orderId} join ${od} on ${od.id} = ${po.id}
        and ${od.state} in ('issued', 'acknowledged')
      where ${l.jobId} = ${jobId}`,
  )
}

/** Budget lines of a year that may pay for a job: of its department, or of its project. */
export function listPayers(
  tx: Tx,
  of: { departmentId: string | null; jobId: string },
  year: number,
): Promise<{ id: string; name: string }[]> {
  return read(
    tx,
    { id: bl.id, name: bl.name },
    sql`from ${bl} where ${bl.fiscalYear} = ${year} and not ${bl.retired} and (${bl.departmentId} = ${of.departmentId}
      or ${bl.projectCode} = (select ${j.projectCode} from ${j} where ${j.id} = ${of.jobId})) order by ${bl.name}`,
  )
}
