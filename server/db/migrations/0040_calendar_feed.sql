CREATE TABLE "calendar_feed" (
	"person_id" uuid PRIMARY KEY NOT NULL,
	"hash" text NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	CONSTRAINT "calendar_feed_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
ALTER TABLE "calendar_feed" ADD CONSTRAINT "calendar_feed_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;