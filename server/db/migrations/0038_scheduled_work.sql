CREATE TABLE "scheduled_pause" (
	"task" text PRIMARY KEY NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "scheduled_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"task" text NOT NULL,
	"began_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone NOT NULL,
	"error" text,
	"by_id" uuid
);
--> statement-breakpoint
ALTER TABLE "scheduled_pause" ADD CONSTRAINT "scheduled_pause_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "scheduled_run" ADD CONSTRAINT "scheduled_run_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "scheduled_run_task" ON "scheduled_run" USING btree ("task","began_at");