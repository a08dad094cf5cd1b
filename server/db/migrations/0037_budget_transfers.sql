CREATE TABLE "budget_transfer" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"from_line_id" uuid,
	"to_line_id" uuid NOT NULL,
	"period" integer NOT NULL,
	"amount" numeric(20, 4) NOT NULL,
	"reason" text NOT NULL,
	"state" text NOT NULL,
	"proposed_by_id" uuid NOT NULL,
	"proposed_at" timestamp with time zone NOT NULL,
	"decider_id" uuid,
	"decided_by_id" uuid,
	"decided_at" timestamp with time zone,
	"comment" text DEFAULT '' NOT NULL,
	CONSTRAINT "budget_transfer_state" CHECK ("budget_transfer"."state" in ('proposed', 'done', 'refused', 'taken back')),
	CONSTRAINT "budget_transfer_amount" CHECK ("budget_transfer"."amount" > 0 or ("budget_transfer"."from_line_id" is null and "budget_transfer"."amount" <> 0)),
	CONSTRAINT "budget_transfer_lines" CHECK ("budget_transfer"."from_line_id" <> "budget_transfer"."to_line_id"),
	CONSTRAINT "budget_transfer_period" CHECK ("budget_transfer"."period" between 1 and 12)
);
--> statement-breakpoint
ALTER TABLE "budget_transfer" ADD CONSTRAINT "budget_transfer_from_line_id_budget_line_id_fk" FOREIGN KEY ("from_line_id") REFERENCES "public"."budget_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_transfer" ADD CONSTRAINT "budget_transfer_to_line_id_budget_line_id_fk" FOREIGN KEY ("to_line_id") REFERENCES "public"."budget_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_transfer" ADD CONSTRAINT "budget_transfer_proposed_by_id_person_id_fk" FOREIGN KEY ("proposed_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_transfer" ADD CONSTRAINT "budget_transfer_decider_id_person_id_fk" FOREIGN KEY ("decider_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_transfer" ADD CONSTRAINT "budget_transfer_decided_by_id_person_id_fk" FOREIGN KEY ("decided_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "budget_transfer_from" ON "budget_transfer" USING btree ("from_line_id");--> statement-breakpoint
CREATE INDEX "budget_transfer_to" ON "budget_transfer" USING btree ("to_line_id");