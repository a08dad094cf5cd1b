ALTER TABLE "own_field" DROP CONSTRAINT "own_field_name";--> statement-breakpoint
ALTER TABLE "request_kind" DROP CONSTRAINT "request_kind_name_unique";--> statement-breakpoint
ALTER TABLE "own_field" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "request_kind" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "form_version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX "own_field_name" ON "own_field" USING btree ("applies_on","name") WHERE not "own_field"."retired";--> statement-breakpoint
CREATE UNIQUE INDEX "request_kind_name" ON "request_kind" USING btree ("name") WHERE not "request_kind"."retired";