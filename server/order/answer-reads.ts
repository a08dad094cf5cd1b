import { sql, type SQL } from 'drizzle-orm'
import type { AnswerOutcome, AnswerWay } from '#core/order/answer'
import type { LineWish } from '#core/order/change'
import type { Tx } from '../db/client'
import { UTC } from '../db/moments'
import { isThere, named, read, readOne, sure } from '../db/read'
import { orderAnswer } from '../db/schema/order'
import { supplier } from '../db/schema/supplier'
import { orders } from './visible'

const a = named(orderAnswer, 'a')
const s = named(supplier, 's')
const o = orders('o')

export interface AnswerRow {
  id: string
  orderId: string
  /** The sent state that was answered. */
  revision: number
  way: AnswerWay
  /** Who answered, as they said. */
  byName: string
  lines: readonly LineWish[]
  note: string
  givenAt: string
  outcome: AnswerOutcome
  /** What its buyer said to it. */
  said: string
}

const ANSWER = {
  id: a.id,
  orderId: a.orderId,
  revision: a.revision,
  way: a.way,
  byName: a.byName,
  lines: a.lines,
  note: a.note,
  givenAt: UTC(a.givenAt),
  outcome: a.outcome,
  said: a.said,
}

/** Every answer to an order, the last first. */
export const listAnswers = (tx: Tx, orderId: string): Promise<AnswerRow[]> =>
  read(tx, ANSWER, sql`from ${a} where ${a.orderId} = ${orderId} order by ${a.givenAt} desc, ${a.id}`)

/** The answer to an order that waits for its buyer; null where none does. */
export const findWaitingAnswer = (tx: Tx, orderId: string): Promise<AnswerRow | null> =>
  readOne(tx, ANSWER, sql`from ${a} where ${a.orderId} = ${orderId} and ${a.outcome} = 'waits'`)

/** That an order `o` goes to its supplier, who said nothing to what stands. */
export const isUnanswered = (of: typeof o): SQL<boolean> =>
  sql<boolean>`(${of.state} = 'issued' and ${of.isSent} and not ${isThere(sql`from ${a} where ${a.orderId} = ${of.id}
    and ${a.revision} = ${of.revision} and ${a.outcome} = 'waits'`)})`

/** That an answer to an order `o` waits for its buyer. */
export const isAnswered = (of: typeof o): SQL<boolean> =>
  sql<boolean>`${isThere(sql`from ${a} where ${a.orderId} = ${of.id} and ${a.outcome} = 'waits'`)}`

export interface UnansweredRow {
  id: string
  number: string
  supplier: string
  email: string
  issuedAt: string
  remindedAt: string | null
}

/** Orders of a buyer's among these that nobody answered and that can be asked for by mail, locked, oldest first. */
export const listUnanswered = (
  tx: Tx,
  buyerId: string,
  orderIds: readonly string[],
  limit: number,
): Promise<UnansweredRow[]> =>
  read(
    tx,
    {
      id: o.id,
      number: sure(o.number),
      supplier: s.name,
      email: sure(s.email),
      issuedAt: UTC(o.sentAt),
      remindedAt: sql<string | null>`${UTC(o.remindedAt)}`,
    },
    sql`from ${o} join ${s} on ${s.id} = ${o.supplierId}
      where ${o.id} = any(${sql.param([...orderIds])}::uuid[]) and ${o.ownerId} = ${buyerId}
        and ${isUnanswered(o)} and ${s.email} is not null
      order by ${o.sentAt}, ${o.id} limit ${limit}`,
  )
