CREATE TABLE "ordering_rule" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"buyer_id" uuid NOT NULL,
	"form" jsonb NOT NULL,
	"state" text NOT NULL,
	"written_by_id" uuid NOT NULL,
	"confirmed_by_id" uuid,
	"ran_on" date,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "ordering_rule_state" CHECK ("ordering_rule"."state" in ('draft', 'asked', 'in force', 'paused', 'ended'))
);
--> statement-breakpoint
CREATE TABLE "ordering_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"rule_id" uuid NOT NULL,
	"buyer_id" uuid NOT NULL,
	"form" jsonb NOT NULL,
	"cause" text NOT NULL,
	"by_id" uuid,
	"began_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"times" integer DEFAULT 1 NOT NULL,
	"last_at" timestamp with time zone NOT NULL,
	"made" integer DEFAULT 0 NOT NULL,
	"left" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"trouble" text,
	CONSTRAINT "ordering_run_cause" CHECK ("ordering_run"."cause" in ('approval', 'time', 'asked'))
);
--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "run_id" uuid;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "rule" text;--> statement-breakpoint
ALTER TABLE "ordering_rule" ADD CONSTRAINT "ordering_rule_buyer_id_person_id_fk" FOREIGN KEY ("buyer_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ordering_rule" ADD CONSTRAINT "ordering_rule_written_by_id_person_id_fk" FOREIGN KEY ("written_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ordering_rule" ADD CONSTRAINT "ordering_rule_confirmed_by_id_person_id_fk" FOREIGN KEY ("confirmed_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ordering_run" ADD CONSTRAINT "ordering_run_rule_id_ordering_rule_id_fk" FOREIGN KEY ("rule_id") REFERENCES "public"."ordering_rule"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ordering_run" ADD CONSTRAINT "ordering_run_buyer_id_person_id_fk" FOREIGN KEY ("buyer_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "ordering_run" ADD CONSTRAINT "ordering_run_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "ordering_run_rule" ON "ordering_run" USING btree ("rule_id","began_at");--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_run_id_ordering_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."ordering_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "purchase_order_run" ON "purchase_order" USING btree ("run_id") WHERE "purchase_order"."run_id" is not null;