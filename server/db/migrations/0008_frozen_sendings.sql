ALTER TABLE "purchase_order" RENAME COLUMN "to_base" TO "per_base";--> statement-breakpoint
-- The rate as it was published, instead of its reciprocal at 20 digits.
ALTER TABLE "purchase_order" ALTER COLUMN "per_base" SET DATA TYPE numeric(20, 8) USING round(1 / nullif("per_base", 0), 8);--> statement-breakpoint
ALTER TABLE "requisition_line" RENAME COLUMN "to_base" TO "per_base";--> statement-breakpoint
-- The rate as it was published, instead of its reciprocal at 20 digits.
ALTER TABLE "requisition_line" ALTER COLUMN "per_base" SET DATA TYPE numeric(20, 8) USING round(1 / nullif("per_base", 0), 8);--> statement-breakpoint
ALTER TABLE "document" DROP CONSTRAINT "document_requisition";--> statement-breakpoint
ALTER TABLE "document" DROP CONSTRAINT "document_order";--> statement-breakpoint
ALTER TABLE "person" DROP CONSTRAINT "person_limits";--> statement-breakpoint
ALTER TABLE "template" DROP CONSTRAINT "template_repeats";--> statement-breakpoint
ALTER TABLE "approval_route" ALTER COLUMN "amount" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "budgeted" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "budgeted" SET DEFAULT '0';--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "adjustments" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "adjustments" SET DEFAULT '0';--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "reserved" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "reserved" SET DEFAULT '0';--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "committed" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "committed" SET DEFAULT '0';--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "spent" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "budget_balance" ALTER COLUMN "spent" SET DEFAULT '0';--> statement-breakpoint
ALTER TABLE "budget_entry" ALTER COLUMN "amount" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "budget_line" ALTER COLUMN "may_fall_below" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "budget_line" ALTER COLUMN "may_fall_below" SET DEFAULT '0';--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "own_limit" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "deciding_limit" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "ordering_limit" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "requisition" ALTER COLUMN "amount" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "organisation" ALTER COLUMN "order_tolerance_amount" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "supplier" ALTER COLUMN "freight" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "supplier" ALTER COLUMN "freight_free_from" SET DATA TYPE numeric(20, 4);--> statement-breakpoint
ALTER TABLE "approval_route" ADD COLUMN "sent" jsonb;--> statement-breakpoint
-- What was sent is read off what is kept of it: nobody was asked about anything else.
UPDATE "approval_route" a SET "sent" = jsonb_build_object(
  'document', a."document_kind", 'kind', r."kind_code",
  'amount', jsonb_build_object('amount', trim_scale(a."amount")::text, 'currency', a."currency"),
  'overBudget', r."over_budget_reason" <> '',
  'codings', coalesce((
    SELECT jsonb_agg(jsonb_build_object('budgetLineId', c."budget_line_id", 'account', b."account_code",
      'category', l."category_id") ORDER BY l."position", c."position")
    FROM "requisition_line" l JOIN "requisition_coding" c ON c."line_id" = l."id"
      JOIN "budget_line" b ON b."id" = c."budget_line_id" WHERE l."requisition_id" = r."id"), '[]'))
FROM "requisition" r WHERE r."id" = a."document_id";--> statement-breakpoint
ALTER TABLE "approval_route" ALTER COLUMN "sent" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "approval_route" ADD COLUMN "keeps_earlier" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "sent_files" uuid[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
UPDATE "requisition" r SET "sent_files" = coalesce((
  SELECT array_agg(a."id") FROM "attachment" a JOIN "document" d ON d."id" = a."document_id"
  WHERE a."document_id" = r."id" AND a."added_at" <= d."sent_at"), '{}');--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_requisition" CHECK ("document"."kind" <> 'requisition' or ("document"."state" in ('draft', 'in approval', 'approved', 'part ordered', 'ordered',
        'closed', 'sent back', 'rejected', 'withdrawn', 'cancelled') and ("document"."state" = 'draft'
        or "document"."number" is not null)));--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_order" CHECK ("document"."kind" <> 'order' or ("document"."state" in ('draft', 'in approval', 'approved', 'issued', 'acknowledged',
        'part received', 'received', 'closed', 'cancelled') and ("document"."state" in ('draft', 'in approval', 'approved')
        or "document"."number" is not null)));--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_limits" CHECK (coalesce("person"."own_limit", 0) >= 0 and coalesce("person"."deciding_limit", 0) >= 0 and coalesce("person"."ordering_limit",
        0) >= 0);--> statement-breakpoint
ALTER TABLE "template" ADD CONSTRAINT "template_repeats" CHECK ("template"."repeats" in ('week', 'two weeks', 'month', 'quarter', 'year')
        and ("template"."repeats" is null) = ("template"."next_on" is null) and ("template"."repeats" is null) = ("template"."starts_on" is null));
