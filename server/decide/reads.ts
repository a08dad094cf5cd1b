import { sql } from 'drizzle-orm'
import type { DecimalText } from '#core/base/decimal'
import type { Slip } from '#shared/contract/decide'
import type { Tx } from '../db/client'
import { rows } from '../db/rows'
import { ORDERS } from '../order/visible'
import { REQUISITIONS } from '../requisition/visible'

/** What waits for a person's decision, oldest first. */
export function listSlips(tx: Tx, personId: string): Promise<Slip[]> {
  return rows<Slip>(
    tx,
    sql`
    select r.id, o.name as owner, a.amount::text as amount, a.currency, r.title, r.need_by::text as "needBy",
      to_char(min(s.opened_at) at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as since, max(f.name) as "forName",
      bool_or(r.over_budget_reason <> '') as "overBudget",
      exists (select 1 from remark m where m.document_id = r.id and m.kind = 'question' and m.answered_at is null
        and m.person_id = ${personId}) as asked
    from approval_seat s join ${REQUISITIONS} r on r.id = s.document_id join approval_route a on a.id = s.route_id
      join person o on o.id = r.owner_id
      left join person f on f.id = s.for_id
    where s.actor_id = ${personId} and s.state = 'open'
    group by r.id, o.name, a.amount, a.currency, r.title, r.need_by
    order by min(s.opened_at), r.number`,
  )
}

/** The last prices paid for items, newest first, at most six each: from issued orders. */
export function listPaidPrices(
  tx: Tx,
  itemIds: readonly string[],
): Promise<{ itemId: string; unitPrice: DecimalText; currency: string; day: string }[]> {
  return rows(
    tx,
    sql`
    select x."itemId", x."unitPrice", x.currency, x.day from unnest(${sql.param(itemIds as string[])}::uuid[]) as i(id)
    cross join lateral (
      select l.item_id as "itemId", l.unit_price as "unitPrice", o.currency, o.sent_at::date::text as day
      from order_line l join ${ORDERS} o on o.id = l.order_id
      where l.item_id = i.id and o.sent_at is not null order by o.sent_at desc, o.id limit 6) x`,
  )
}
