ALTER TABLE "session" ADD COLUMN "handle" uuid DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "from_address" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "session" ADD COLUMN "agent" text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX "session_person" ON "session" USING btree ("person_id","seen_at");--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_handle_unique" UNIQUE("handle");