CREATE TABLE "job_part" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"number" text NOT NULL,
	"item_id" uuid,
	"description" text NOT NULL,
	"quantity" numeric(24, 6) NOT NULL,
	"unit" text NOT NULL,
	"estimate" numeric(24, 6),
	CONSTRAINT "job_part_number" UNIQUE("job_id","number"),
	CONSTRAINT "job_part_quantity" CHECK ("job_part"."quantity" > 0)
);
--> statement-breakpoint
CREATE TABLE "job_part_line" (
	"line_id" uuid PRIMARY KEY NOT NULL,
	"part_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "job_person" (
	"job_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "job_person_job_id_person_id_pk" PRIMARY KEY("job_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "job_plan" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"starts_on" date,
	"ends_on" date,
	"ship_to_id" uuid,
	"budget_line_id" uuid
);
--> statement-breakpoint
ALTER TABLE "job_part" ADD CONSTRAINT "job_part_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_part" ADD CONSTRAINT "job_part_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_part_line" ADD CONSTRAINT "job_part_line_part_id_job_part_id_fk" FOREIGN KEY ("part_id") REFERENCES "public"."job_part"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_person" ADD CONSTRAINT "job_person_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_person" ADD CONSTRAINT "job_person_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_plan" ADD CONSTRAINT "job_plan_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_plan" ADD CONSTRAINT "job_plan_ship_to_id_ship_to_id_fk" FOREIGN KEY ("ship_to_id") REFERENCES "public"."ship_to"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_plan" ADD CONSTRAINT "job_plan_budget_line_id_budget_line_id_fk" FOREIGN KEY ("budget_line_id") REFERENCES "public"."budget_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "job_part_of" ON "job_part" USING btree ("job_id","position");--> statement-breakpoint
CREATE INDEX "job_part_line_of" ON "job_part_line" USING btree ("part_id");--> statement-breakpoint
CREATE INDEX "job_person_person" ON "job_person" USING btree ("person_id");