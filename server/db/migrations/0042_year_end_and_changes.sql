CREATE TABLE "year_end_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"fiscal_year" integer NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	"with_money" boolean NOT NULL,
	"lines" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "absence_stand_in" (
	"absence_id" uuid NOT NULL,
	"department_id" uuid NOT NULL,
	"substitute_id" uuid NOT NULL,
	CONSTRAINT "absence_stand_in_absence_id_department_id_pk" PRIMARY KEY("absence_id","department_id")
);
--> statement-breakpoint
ALTER TABLE "approval_decision" ADD COLUMN "changed_from" jsonb;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "may_change" text DEFAULT 'nothing' NOT NULL;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "order_tolerance" jsonb;--> statement-breakpoint
ALTER TABLE "budget_line" ADD COLUMN "tell_at" integer[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "budget_line" ADD COLUMN "told_share" integer;--> statement-breakpoint
ALTER TABLE "requisition_coding" ADD COLUMN "carried_to" integer;--> statement-breakpoint
ALTER TABLE "requisition_coding" ADD COLUMN "released" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "year_end_run" ADD CONSTRAINT "year_end_run_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "absence_stand_in" ADD CONSTRAINT "absence_stand_in_absence_id_absence_id_fk" FOREIGN KEY ("absence_id") REFERENCES "public"."absence"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "absence_stand_in" ADD CONSTRAINT "absence_stand_in_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "absence_stand_in" ADD CONSTRAINT "absence_stand_in_substitute_id_person_id_fk" FOREIGN KEY ("substitute_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "year_end_run_year" ON "year_end_run" USING btree ("fiscal_year","at");--> statement-breakpoint
CREATE INDEX "absence_stand_in_substitute" ON "absence_stand_in" USING btree ("substitute_id");--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_may_change" CHECK ("approval_policy"."may_change" in ('nothing', 'quantities', 'quantities and payers'));