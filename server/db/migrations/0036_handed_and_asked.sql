CREATE TABLE "approval_handing" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"route_id" uuid NOT NULL,
	"document_id" uuid NOT NULL,
	"how" text NOT NULL,
	"by_id" uuid NOT NULL,
	"actor_id" uuid NOT NULL,
	"to_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"called_back_at" timestamp with time zone,
	CONSTRAINT "approval_handing_how" CHECK ("approval_handing"."how" in ('on', 'first', 'as well', 'skip'))
);
--> statement-breakpoint
CREATE TABLE "prepared_reason" (
	"id" uuid PRIMARY KEY NOT NULL,
	"text" text NOT NULL,
	"use" text NOT NULL,
	"retired" boolean DEFAULT false NOT NULL,
	CONSTRAINT "prepared_reason_use" CHECK ("prepared_reason"."use" in ('all', 'approving', 'sending back', 'rejecting', 'asking'))
);
--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "may_skip" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "remark" ADD COLUMN "to_id" uuid;--> statement-breakpoint
ALTER TABLE "approval_handing" ADD CONSTRAINT "approval_handing_route_id_approval_route_id_fk" FOREIGN KEY ("route_id") REFERENCES "public"."approval_route"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_handing" ADD CONSTRAINT "approval_handing_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_handing" ADD CONSTRAINT "approval_handing_actor_id_person_id_fk" FOREIGN KEY ("actor_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_handing" ADD CONSTRAINT "approval_handing_to_id_person_id_fk" FOREIGN KEY ("to_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "approval_handing_document" ON "approval_handing" USING btree ("document_id");--> statement-breakpoint
CREATE UNIQUE INDEX "prepared_reason_text" ON "prepared_reason" USING btree (lower("text"));--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_to_id_person_id_fk" FOREIGN KEY ("to_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "remark_to" ON "remark" USING btree ("to_id") WHERE "remark"."to_id" is not null;--> statement-breakpoint
-- A draft that was written before skips nobody.
update policy_draft set form = form || '{"maySkip": false}';
