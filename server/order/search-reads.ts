import { sql, type SQL } from 'drizzle-orm'
import { holdsAll, isNumbered, likePattern } from '../db/pattern'
import { named } from '../db/read'
import { agreement } from '../db/schema/agreement'
import { orderLine, orderLineSource } from '../db/schema/order'
import { person } from '../db/schema/people'
import { job } from '../db/schema/request-form'
import { requisitionLine } from '../db/schema/requisition'
import { visible, type Reader } from '../document/visible'
import { SEEN_REQUISITIONS, whatAsks } from '../requisition/visible'
import type { orders } from './visible'

type Orders = ReturnType<typeof orders>

const x = named(orderLineSource, 'x')
const q = named(requisitionLine, 'q')
const ol = named(orderLine, 'ol')
const r = whatAsks('r')
const n = named(person, 'n')
const j = named(job, 'j')
const a = named(agreement, 'a')

/** Numbers of documents begin with their series and year. */
const LIKE_NUMBER = /^[a-z]{1,4}-\d\d-/i

/**
 * That an order `o` of a buyer `b` is found by words: by its number, the one under which it was placed elsewhere, that
 * of the agreement on which it draws; all of them in supplier and buyer, in one of its lines, or in the name of whoever
 * asked for it, or for whom somebody did; by the number of a request that it serves, or of a job for which that is.
 * Requests count as far as the reader sees them.
 */
export function isFound(words: string, o: Orders, b: ReturnType<typeof named<typeof person>>, reader: Reader): SQL {
  const looked = likePattern(words)
  const called = sql`select ${n.id} from ${n} where ${holdsAll(n.name, looked)}`
  const found = [
    isNumbered(o.number, looked),
    holdsAll(sql`(${o.title} || ' ' || ${b.name} || ' ' || coalesce(${o.placedAs}, ''))`, looked),
    sql`${o.id} in (select ${ol.orderId} from ${ol} where ${holdsAll(ol.description, looked)})`,
    sql`${o.agreementId} in (select ${a.id} from ${a}
      where ${isNumbered(a.number, looked)} or ${isNumbered(a.theirNumber, looked)})`,
    serves(o, reader, sql`${r.ownerId} in (${called})`),
    serves(o, reader, sql`${r.raisedById} in (${called})`),
    serves(o, reader, sql`${q.jobId} in (select ${j.id} from ${j} where ${isNumbered(j.number, looked)})`),
    ...(LIKE_NUMBER.test(words.trim()) ? [serves(o, reader, isNumbered(r.number, looked))] : []),
  ]
  return sql`(${sql.join(found, sql` or `)})`
}

/** That an order `o` serves a requisition `r` with a line `q` of which something holds, of those that a person sees. */
const serves = (o: Orders, reader: Reader, condition: SQL): SQL => sql`coalesce(${o.blanketId}, ${o.id}) in (
  select ${ol.orderId} from ${r} join ${q} on ${q.requisitionId} = ${r.id}
    join ${x} on ${x.requisitionLineId} = ${q.id} join ${ol} on ${ol.id} = ${x.orderLineId}
  where ${condition} and ${visible(SEEN_REQUISITIONS, reader)})`
