CREATE TABLE "policy_draft" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"begun_from" integer NOT NULL,
	"form" jsonb NOT NULL,
	"version" integer NOT NULL,
	"state" text NOT NULL,
	"changed_by_id" uuid NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"in_force_at" timestamp with time zone,
	"writers" jsonb NOT NULL,
	"asked_by_id" uuid,
	"asked_at" timestamp with time zone,
	"returned" text DEFAULT '' NOT NULL,
	CONSTRAINT "policy_draft_one" CHECK ("policy_draft"."id" = 1),
	CONSTRAINT "policy_draft_state" CHECK ("policy_draft"."state" in ('none', 'written', 'waiting')),
	CONSTRAINT "policy_draft_asked" CHECK (("policy_draft"."state" = 'waiting') = ("policy_draft"."asked_by_id" is not null))
);
--> statement-breakpoint
ALTER TABLE "approval_decision" ADD COLUMN "policy_id" uuid;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "number" integer;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "in_force_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "remind_days" integer;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "escalate_days" integer;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "asked_by_id" uuid;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "asked_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "confirmed_by_id" uuid;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "confirmed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "called_off_by_id" uuid;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "called_off_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "approval_route" ADD COLUMN "policy_id" uuid;--> statement-breakpoint
ALTER TABLE "approval_rule" ADD COLUMN "lineage" uuid DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
ALTER TABLE "policy_draft" ADD CONSTRAINT "policy_draft_changed_by_id_person_id_fk" FOREIGN KEY ("changed_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "policy_draft" ADD CONSTRAINT "policy_draft_asked_by_id_person_id_fk" FOREIGN KEY ("asked_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_decision" ADD CONSTRAINT "approval_decision_policy_id_approval_policy_id_fk" FOREIGN KEY ("policy_id") REFERENCES "public"."approval_policy"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_asked_by_id_person_id_fk" FOREIGN KEY ("asked_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_confirmed_by_id_person_id_fk" FOREIGN KEY ("confirmed_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_called_off_by_id_person_id_fk" FOREIGN KEY ("called_off_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_route" ADD CONSTRAINT "approval_route_policy_id_approval_policy_id_fk" FOREIGN KEY ("policy_id") REFERENCES "public"."approval_policy"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- What held from a day held from its first moment; versions are counted in the order in which they came into force.
UPDATE "approval_policy" SET
	"in_force_at" = "in_force_from"::timestamp AT TIME ZONE coalesce((SELECT "time_zone" FROM "organisation"), 'UTC'),
	"number" = (SELECT count(*) FROM "approval_policy" e WHERE (e."in_force_from", e."id") <= ("approval_policy"."in_force_from", "approval_policy"."id"));--> statement-breakpoint
ALTER TABLE "approval_policy" ALTER COLUMN "in_force_at" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "approval_policy" ALTER COLUMN "number" SET NOT NULL;--> statement-breakpoint
-- Routes named rules by their row: that is what they are known by from now on.
UPDATE "approval_rule" SET "lineage" = "id";--> statement-breakpoint
UPDATE "approval_route" SET "policy_id" = (SELECT y."id" FROM "approval_policy" y WHERE y."in_force_at" <= "approval_route"."created_at" ORDER BY y."in_force_at" DESC, y."number" DESC LIMIT 1);--> statement-breakpoint
UPDATE "approval_decision" SET "policy_id" = (SELECT y."id" FROM "approval_policy" y WHERE y."in_force_at" <= "approval_decision"."at" ORDER BY y."in_force_at" DESC, y."number" DESC LIMIT 1);--> statement-breakpoint
ALTER TABLE "approval_policy" DROP COLUMN "in_force_from";--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_number" UNIQUE("number");--> statement-breakpoint
ALTER TABLE "approval_rule" ADD CONSTRAINT "approval_rule_lineage" UNIQUE("policy_id","lineage");--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_remind_days" CHECK ("approval_policy"."remind_days" between 1 and 400);--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_escalate_days" CHECK ("approval_policy"."escalate_days" between 1 and 400);