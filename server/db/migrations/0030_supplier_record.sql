CREATE TABLE "bank_change" (
	"supplier_id" uuid PRIMARY KEY NOT NULL,
	"details" jsonb NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"told_to" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "supplier_contact" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"supplier_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"about" text NOT NULL,
	"email" text DEFAULT '' NOT NULL,
	"telephone" text DEFAULT '' NOT NULL,
	"address" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "supplier_document" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"supplier_id" uuid NOT NULL,
	"name" text NOT NULL,
	"valid_until" date,
	"file_hash" text NOT NULL,
	"added_by_id" uuid NOT NULL,
	"added_at" timestamp with time zone NOT NULL,
	"reminded_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "supplier" DROP CONSTRAINT "supplier_standing";--> statement-breakpoint
DROP INDEX "supplier_one_tax_number";--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "standing_reason" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "standing_since" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "standing_until" date;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "merged_into_id" uuid;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "dated_warning" text;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "warning_from" date;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "warning_until" date;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "bank" jsonb;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "email_before" text;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "email_changed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "bank_change" ADD CONSTRAINT "bank_change_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bank_change" ADD CONSTRAINT "bank_change_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier_contact" ADD CONSTRAINT "supplier_contact_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier_document" ADD CONSTRAINT "supplier_document_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier_document" ADD CONSTRAINT "supplier_document_file_hash_file_hash_fk" FOREIGN KEY ("file_hash") REFERENCES "public"."file"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier_document" ADD CONSTRAINT "supplier_document_added_by_id_person_id_fk" FOREIGN KEY ("added_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "supplier_contact_of" ON "supplier_contact" USING btree ("supplier_id","position");--> statement-breakpoint
CREATE INDEX "supplier_document_of" ON "supplier_document" USING btree ("supplier_id");--> statement-breakpoint
CREATE INDEX "supplier_document_file" ON "supplier_document" USING btree ("file_hash");--> statement-breakpoint
CREATE INDEX "supplier_document_ends" ON "supplier_document" USING btree ("valid_until");--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_merged_into_id_supplier_id_fk" FOREIGN KEY ("merged_into_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "supplier_one_tax_number" ON "supplier" USING btree ((upper(regexp_replace("tax_number", '[^A-Za-z0-9]', '', 'g')))) WHERE "supplier"."standing" not in ('refused', 'merged') and "supplier"."tax_number" ~ '[A-Za-z0-9]';--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_merged" CHECK (("supplier"."standing" = 'merged') = ("supplier"."merged_into_id" is not null));--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_standing" CHECK ("supplier"."standing" in ('active', 'on hold', 'blocked', 'proposed', 'refused', 'merged'));--> statement-breakpoint
-- What would name a merged supplier names the one that it is: also a draft that was open while they were merged. The
-- row is locked as its foreign key would lock it, so that a merging under way is waited for.
CREATE FUNCTION "follow_merged_supplier"() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE kept uuid;
BEGIN
  SELECT "merged_into_id" INTO kept FROM "supplier" WHERE "id" = NEW."supplier_id" FOR KEY SHARE;
  IF kept IS NOT NULL THEN NEW."supplier_id" := kept; END IF;
  RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER "requisition_line_supplier" BEFORE INSERT OR UPDATE OF "supplier_id" ON "requisition_line"
  FOR EACH ROW WHEN (NEW."supplier_id" IS NOT NULL) EXECUTE FUNCTION "follow_merged_supplier"();--> statement-breakpoint
CREATE TRIGGER "regular_supplier" BEFORE INSERT OR UPDATE OF "supplier_id" ON "regular"
  FOR EACH ROW WHEN (NEW."supplier_id" IS NOT NULL) EXECUTE FUNCTION "follow_merged_supplier"();--> statement-breakpoint
CREATE TRIGGER "purchase_order_supplier" BEFORE INSERT OR UPDATE OF "supplier_id" ON "purchase_order"
  FOR EACH ROW EXECUTE FUNCTION "follow_merged_supplier"();
