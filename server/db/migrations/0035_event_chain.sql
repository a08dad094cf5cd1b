CREATE TABLE "event_link" (
	"number" bigint PRIMARY KEY NOT NULL,
	"seq" bigint NOT NULL,
	"hash" text NOT NULL,
	"laid_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "event_link_seq_unique" UNIQUE("seq")
);
--> statement-breakpoint
CREATE TABLE "integrity_run" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid,
	"outcome" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "approval_seat" ADD COLUMN "reminded_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "approval_seat" ADD COLUMN "late_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "event_link" ADD CONSTRAINT "event_link_seq_event_seq_fk" FOREIGN KEY ("seq") REFERENCES "public"."event"("seq") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "integrity_run" ADD CONSTRAINT "integrity_run_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "integrity_run_at" ON "integrity_run" USING btree ("at");--> statement-breakpoint
CREATE INDEX "event_actor" ON "event" USING btree ("actor_id","seq");--> statement-breakpoint
-- Links are laid once and for good, as the events are.
revoke update, delete, truncate on event_link from rekko_app;
