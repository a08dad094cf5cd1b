CREATE TABLE "one_time_key" (
	"hash" text PRIMARY KEY NOT NULL,
	"purpose" text NOT NULL,
	"person_id" uuid,
	"expires_at" timestamp with time zone NOT NULL,
	CONSTRAINT "one_time_key_whose" CHECK (("one_time_key"."purpose" = 'password') = ("one_time_key"."person_id" is not null))
);
--> statement-breakpoint
ALTER TABLE "one_time_key" ADD CONSTRAINT "one_time_key_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "one_time_key_person" ON "one_time_key" USING btree ("person_id");