ALTER TABLE "approval_policy" ADD COLUMN "own_limit_days" integer;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "owned_by" uuid[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_own_limit_days" CHECK ("approval_policy"."own_limit_days" between 1 and 400);--> statement-breakpoint
-- Whoever owned a document since it was last sent, from what happened.
update document d set owned_by = past.owners
from (
  select e.subject_id as id, array_agg(distinct (e.before ->> 'ownerId')::uuid) as owners
  from event e
  where e.type = 'handed over' and e.before ->> 'ownerId' is not null and e.seq > coalesce((
    select max(s.seq) from event s where s.subject_id = e.subject_id and s.type in ('sent', 'sent again', 'issued')), 0)
  group by e.subject_id
) past
where past.id = d.id;
