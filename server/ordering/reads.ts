import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { OrderingForm } from '#core/order/by-itself'
import type { OrderState } from '#core/order/moves'
import type { RuleState } from '#core/order/rule-moves'
import type { Tx } from '../db/client'
import { SECONDS } from '../db/moments'
import { named, read, readOne, sure } from '../db/read'
import { orderingRule, orderingRun, type RunLeft } from '../db/schema/ordering'
import { person, shipTo } from '../db/schema/people'
import { orderLine, orderLineSource } from '../db/schema/order'
import { requisitionLine } from '../db/schema/requisition'
import { supplier } from '../db/schema/supplier'
import type { Reader } from '../document/visible'
import { visible } from '../document/visible'
import { orders, SEEN_ORDERS } from '../order/visible'
import { isOpenLine, requisitions, SEEN_REQUISITIONS } from '../requisition/visible'

const u = named(orderingRule, 'u')
const n = named(orderingRun, 'n')
const b = named(person, 'b')
const w = named(person, 'w')
const c = named(person, 'c')
const l = named(requisitionLine, 'l')
const s = named(supplier, 's')
const t = named(shipTo, 't')
const o = orders('o')
const r = requisitions('r')
const x = named(orderLine, 'x')
const y = named(orderLineSource, 'y')
const f = named(orderingRun, 'f')

export interface RuleRow {
  id: string
  name: string
  buyerId: string
  buyer: string
  form: OrderingForm
  state: RuleState
  writtenById: string
  writtenBy: string
  confirmedBy: string | null
  ranOn: string | null
  version: number
}
const RULE = {
  id: u.id,
  name: u.name,
  buyerId: u.buyerId,
  buyer: b.name,
  form: u.form,
  state: u.state,
  writtenById: u.writtenById,
  writtenBy: w.name,
  confirmedBy: sql<string | null>`${c.name}`,
  ranOn: u.ranOn,
  version: u.version,
}
const RULES = sql`from ${u} join ${b} on ${b.id} = ${u.buyerId} join ${w} on ${w.id} = ${u.writtenById}
  left join ${c} on ${c.id} = ${u.confirmedById}`

/** The rules of ordering by itself, those that are over last. */
export const listRules = (tx: Tx): Promise<RuleRow[]> =>
  read(tx, RULE, sql`${RULES} order by (${u.state} = 'ended'), lower(${u.name}), ${u.id}`)

/** A rule; `lock` takes its row. */
export const findRule = (tx: Tx, id: string, lock = false): Promise<RuleRow | null> =>
  readOne(tx, RULE, sql`${RULES} where ${u.id} = ${id} ${lock ? sql`for update of u` : sql``}`)

export interface RunRow {
  id: string
  ruleId: string
  rule: string
  buyer: string
  form: OrderingForm
  cause: 'approval' | 'time' | 'asked'
  by: string | null
  beganAt: string
  endedAt: string | null
  lastAt: string
  times: number
  made: number
  left: readonly RunLeft[]
  trouble: string | null
}
const RUN = {
  id: n.id,
  ruleId: n.ruleId,
  rule: u.name,
  buyer: b.name,
  form: n.form,
  cause: n.cause,
  by: sql<string | null>`${w.name}`,
  beganAt: SECONDS(n.beganAt),
  endedAt: sql<string | null>`${SECONDS(n.endedAt)}`,
  lastAt: SECONDS(n.lastAt),
  times: n.times,
  made: n.made,
  left: n.left,
  trouble: n.trouble,
}
const RUNS = sql`from ${n} join ${u} on ${u.id} = ${n.ruleId} join ${b} on ${b.id} = ${n.buyerId}
  left join ${w} on ${w.id} = ${n.byId}`

/** Runs, the newest first; those of one rule alone where it is named. */
export const listRuns = (tx: Tx, ruleId: string | null, limit: number): Promise<RunRow[]> =>
  read(
    tx,
    RUN,
    sql`${RUNS} where ${ruleId === null ? sql`true` : sql`${n.ruleId} = ${ruleId}`}
      order by ${n.lastAt} desc, ${n.id} limit ${limit}`,
  )

/** The last run of each rule. */
export const listLastRuns = (tx: Tx): Promise<RunRow[]> =>
  read(
    tx,
    RUN,
    sql`${RUNS} where not exists (select from ${f} where ${f.ruleId} = ${n.ruleId}
      and (${f.lastAt}, ${f.id}) > (${n.lastAt}, ${n.id}))`,
  )

export const findRun = (tx: Tx, id: string): Promise<RunRow | null> =>
  readOne(tx, RUN, sql`${RUNS} where ${n.id} = ${id}`)

/** The orders that a run made, as far as somebody sees them, by their numbers. */
export const listMadeOrders = (tx: Tx, runId: string, reader: Reader) =>
  read(
    tx,
    {
      id: o.id,
      number: sure(o.number),
      supplier: s.name,
      shipTo: t.name,
      state: sql<OrderState>`${o.state}`,
      net: sure(o.net),
      currency: o.currency,
      requests: sql<{ id: string; number: string }[]>`(select coalesce(json_agg(distinct jsonb_build_object(
        'id', ${r.id}, 'number', ${r.number})), '[]') from ${x} join ${y} on ${y.orderLineId} = ${x.id}
        join ${l} on ${l.id} = ${y.requisitionLineId} join ${r} on ${r.id} = ${l.requisitionId}
        where ${x.orderId} = ${o.id})`,
    },
    sql`from ${o} join ${s} on ${s.id} = ${o.supplierId} join ${t} on ${t.id} = ${o.shipToId}
      where ${o.runId} = ${runId} and ${visible(SEEN_ORDERS, reader)} order by ${o.number}`,
  )

export interface LeftLineRow {
  lineId: string
  requisitionId: string
  number: string
  description: string
  quantity: DecimalText
  unit: string
  supplier: string | null
  /** Whether it still waits to be ordered. */
  isOpen: boolean
}

/** Some requisition lines, as far as somebody sees their requisitions. */
export const listLeftLines = (tx: Tx, lineIds: readonly string[], reader: Reader): Promise<LeftLineRow[]> =>
  read(
    tx,
    {
      lineId: l.id,
      requisitionId: r.id,
      number: sure(r.number),
      description: l.description,
      quantity: l.quantity,
      unit: l.unit,
      supplier: sql<string | null>`${s.name}`,
      isOpen: sql<boolean>`${r.state} in ('approved', 'part ordered') and ${isOpenLine(l)}`,
    },
    sql`from ${l} join ${r} on ${r.id} = ${l.requisitionId} left join ${s} on ${s.id} = ${l.supplierId}
      where ${l.id} = any(${sql.param([...lineIds])}::uuid[]) and ${visible(SEEN_REQUISITIONS, reader)}
      order by ${r.number}, ${l.position}`,
  )

/** Suppliers by id, with their names. */
export const listNamedSuppliers = (tx: Tx, ids: readonly string[]): Promise<{ id: string; name: string }[]> =>
  read(
    tx,
    { id: s.id, name: s.name },
    sql`from ${s} where ${s.id} = any(${sql.param([...ids])}::uuid[]) order by ${s.name}`,
  )
