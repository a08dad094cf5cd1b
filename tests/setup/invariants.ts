import { disagreements, type Rekko } from './rekko'

/** What holds at any moment, as statements that find where it does not: a name, and what breaks it. */
const RULES: Readonly<Record<string, string>> = {
  'a line is ordered by what its order lines say': `
    select l.id from requisition_line l left join (
      select x.requisition_line_id as id, sum(x.quantity) as q from order_line_source x group by 1) s using (id)
    where l.ordered <> coalesce(s.q, 0)`,
  'no more is called off than a blanket order orders': `
    select l.id from order_line l join order_line c on c.blanket_line_id = l.id and c.quantity > 0 group by l.id
    having case when l.unit = 'LS' then sum(c.net) > l.net else sum(c.quantity) > l.quantity end`,
  'a line lies on trays by what they hold': `
    select l.id from requisition_line l left join (
      select requisition_line_id as id, sum(quantity) as q from tray_part group by 1) s using (id)
    where l.on_tray <> coalesce(s.q, 0)`,
  'no more is ordered, laid and cancelled than was asked for':
    'select id from requisition_line where ordered + on_tray + cancelled > quantity',
  'a request stands where its lines say': `
    select d.id from document d join requisition_line l on l.requisition_id = d.id
    where d.kind = 'requisition' and d.state in ('approved', 'part ordered', 'ordered') group by d.id, d.state
    having (d.state = 'ordered') <> bool_and(l.ordered + l.cancelled >= l.quantity)
      or (d.state = 'approved') <> (sum(l.ordered) = 0)`,
  'a request is sent as often as its events say': `
    select r.id from requisition r where r.round <> (
      select count(*) from event e where e.subject_id = r.id and e.type in ('sent', 'sent again'))`,
  'what waits for a decision has a route, and what was approved has passed it': `
    select d.id from document d join requisition r using (id)
      left join approval_route t on t.document_id = d.id and t.round = r.round
    where d.state in ('in approval', 'approved', 'part ordered', 'ordered')
      and coalesce(t.state, '') <> all(case when d.state = 'in approval' then array['open', 'held']
        else array['approved'] end)`,
  'an issued order has its lines, its revision, one event, and at most one sending, which is laid with its PDF': `
    select d.id from document d where d.kind = 'order' and d.state = 'issued' and (
      not exists (select 1 from order_line l where l.order_id = d.id)
      or (select count(*) from order_revision v where v.order_id = d.id) <> 1
      or (select count(*) from order_sending g where g.order_id = d.id) > 1
      or (select count(*) from event e where e.subject_id = d.id and e.type = 'issued') <> 1)`,
  'what departments asked for is counted as it was sent': `
    select coalesce(a.item_id, s.item) as id from item_asked a full join (
      select (r.sent_draft ->> 'departmentId')::uuid as department, (l ->> 'itemId')::uuid as item, count(*) as n
      from requisition r, jsonb_array_elements(r.sent_draft -> 'lines') l
      where l ->> 'itemId' is not null group by 1, 2) s on s.item = a.item_id and s.department = a.department_id
    where coalesce(a.lines, 0) <> coalesce(s.n, 0)`,
  'numbers of a series have no gaps': `
    select s.series as id from number_series s where s.series in ('R', 'P') and s.last <> (
      select count(*) from document d
      where d.number like s.series || '-' || lpad((s.fiscal_year % 100)::text, 2, '0') || '-%')`,
}

/** What is broken, by the name of its rule: nothing, at any moment. */
export async function brokenRules(rekko: Rekko): Promise<string[]> {
  const broken = (await disagreements(rekko)).map((d) => `ledger and balances agree: ${d.id}`)
  for (const [name, statement] of Object.entries(RULES))
    broken.push(...(await rekko.sql<{ id: string }>(statement)).map((r) => `${name}: ${r.id}`))
  return broken
}
