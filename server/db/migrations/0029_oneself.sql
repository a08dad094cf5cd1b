CREATE TABLE "access_token" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"hash" text NOT NULL,
	"person_id" uuid NOT NULL,
	"name" text NOT NULL,
	"rights" text[] NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone,
	"ended_at" timestamp with time zone,
	CONSTRAINT "access_token_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "recovery_code" (
	"person_id" uuid NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "recovery_code_person_id_hash_pk" PRIMARY KEY("person_id","hash")
);
--> statement-breakpoint
CREATE TABLE "second_factor" (
	"person_id" uuid PRIMARY KEY NOT NULL,
	"sealed" text NOT NULL,
	"confirmed_at" timestamp with time zone,
	"last_step" integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "theme" text DEFAULT 'system' NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "mails_waiting" text DEFAULT 'at once' NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "mails_news" text DEFAULT 'at once' NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "letter_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "second_factor_for" text DEFAULT 'nobody' NOT NULL;--> statement-breakpoint
ALTER TABLE "access_token" ADD CONSTRAINT "access_token_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "recovery_code" ADD CONSTRAINT "recovery_code_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_factor" ADD CONSTRAINT "second_factor_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "access_token_person" ON "access_token" USING btree ("person_id");--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_theme" CHECK ("person"."theme" in ('system', 'light', 'dark'));--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_mails" CHECK ("person"."mails_waiting" in ('at once', 'daily', 'never') and "person"."mails_news" in ('at once', 'daily', 'never'));--> statement-breakpoint
ALTER TABLE "organisation" ADD CONSTRAINT "organisation_second_factor" CHECK ("organisation"."second_factor_for" in ('nobody', 'office', 'everybody'));