CREATE TABLE "laid_file" (
	"id" uuid PRIMARY KEY NOT NULL,
	"list" text NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"name" text NOT NULL,
	"file_hash" text,
	"state" text DEFAULT 'reading' NOT NULL,
	"head" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"columns" jsonb,
	"rows" integer DEFAULT 0 NOT NULL,
	"looked" integer DEFAULT 0 NOT NULL,
	"adds" integer DEFAULT 0 NOT NULL,
	"changes" integer DEFAULT 0 NOT NULL,
	"nothing" integer DEFAULT 0 NOT NULL,
	"refused" integer DEFAULT 0 NOT NULL,
	"reasons" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"notes" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"version" integer,
	"trouble" text DEFAULT '' NOT NULL,
	"seq" bigint
);
--> statement-breakpoint
CREATE TABLE "laid_row" (
	"file_id" uuid NOT NULL,
	"at" integer NOT NULL,
	"cells" jsonb NOT NULL,
	"key" text,
	"does" text,
	"entry_id" uuid,
	"before" jsonb,
	"after" jsonb,
	CONSTRAINT "laid_row_file_id_at_pk" PRIMARY KEY("file_id","at")
);
--> statement-breakpoint
ALTER TABLE "laid_file" ADD CONSTRAINT "laid_file_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "laid_file" ADD CONSTRAINT "laid_file_file_hash_file_hash_fk" FOREIGN KEY ("file_hash") REFERENCES "public"."file"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "laid_row" ADD CONSTRAINT "laid_row_file_id_laid_file_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."laid_file"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "laid_file_of" ON "laid_file" USING btree ("list","by_id","at");--> statement-breakpoint
CREATE INDEX "laid_file_seq" ON "laid_file" USING btree ("seq");--> statement-breakpoint
CREATE INDEX "laid_row_key" ON "laid_row" USING btree ("file_id","key");