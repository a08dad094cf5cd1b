ALTER TABLE "budget_line" ADD COLUMN "requests_behind" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "budget_line" ADD COLUMN "orders_behind" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "budget_line" ADD CONSTRAINT "budget_line_behind" CHECK ("budget_line"."requests_behind" >= 0 and "budget_line"."orders_behind" >= 0);--> statement-breakpoint
-- What the ledger holds is counted once; from here on it is kept beside it.
update budget_line b set requests_behind = e.requests, orders_behind = e.orders
from (select budget_line_id, count(*) filter (where stage = 'reserved') as requests,
    count(*) filter (where stage = 'committed') as orders
  from (select budget_line_id, stage, document_id from budget_entry group by 1, 2, 3 having sum(amount) <> 0) standing
  group by 1) e
where b.id = e.budget_line_id;
