CREATE TABLE "job" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"number" text NOT NULL,
	"name" text NOT NULL,
	"department_id" uuid,
	"project_code" text,
	"is_open" boolean DEFAULT true NOT NULL,
	CONSTRAINT "job_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "own_field" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"help" text DEFAULT '' NOT NULL,
	"applies_on" text NOT NULL,
	"type" text NOT NULL,
	"required" boolean DEFAULT false NOT NULL,
	"kinds" text[] DEFAULT '{}' NOT NULL,
	"department_ids" uuid[] DEFAULT '{}' NOT NULL,
	"category_ids" uuid[] DEFAULT '{}' NOT NULL,
	"choices" text[] DEFAULT '{}' NOT NULL,
	CONSTRAINT "own_field_name" UNIQUE("applies_on","name"),
	CONSTRAINT "own_field_on" CHECK ("own_field"."applies_on" in ('requisition', 'line'))
);
--> statement-breakpoint
CREATE TABLE "regular" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"item_id" uuid,
	"description" text NOT NULL,
	"quantity" numeric(24, 6) NOT NULL,
	"unit" text NOT NULL,
	"unit_price" numeric(24, 6),
	"price_base" numeric(20, 6) DEFAULT '1' NOT NULL,
	"currency" text NOT NULL,
	"tax_code" text NOT NULL,
	"supplier_id" uuid,
	"supplier_part" text
);
--> statement-breakpoint
CREATE TABLE "regular_list" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"name" text NOT NULL,
	"owner_id" uuid,
	"department_id" uuid,
	CONSTRAINT "regular_list_whose" CHECK (num_nonnulls("regular_list"."owner_id", "regular_list"."department_id") = 1)
);
--> statement-breakpoint
CREATE TABLE "request_kind" (
	"code" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"help" text DEFAULT '' NOT NULL,
	"series" text DEFAULT 'R' NOT NULL,
	"position" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "request_kind_name_unique" UNIQUE("name"),
	CONSTRAINT "request_kind_series" CHECK ("request_kind"."series" ~ '^[A-Z]{1,3}$' and "request_kind"."series" not in ('P', 'SUP'))
);
--> statement-breakpoint
CREATE TABLE "request_rule" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"conditions" jsonb NOT NULL,
	"asks" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "saved_view" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"person_id" uuid NOT NULL,
	"place" text NOT NULL,
	"name" text NOT NULL,
	"query" text NOT NULL,
	CONSTRAINT "saved_view_name" UNIQUE("person_id","place","name")
);
--> statement-breakpoint
CREATE TABLE "template" (
	"id" uuid PRIMARY KEY NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"name" text NOT NULL,
	"owner_id" uuid NOT NULL,
	"department_id" uuid,
	"draft" jsonb NOT NULL,
	"repeats" text,
	"starts_on" date,
	"next_on" date,
	"sends_itself" boolean DEFAULT false NOT NULL,
	"needed_after" integer DEFAULT 10 NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	CONSTRAINT "template_repeats" CHECK ("template"."repeats" in ('week', 'two weeks', 'month', 'quarter', 'year') and ("template"."repeats" is null) = ("template"."next_on" is null) and ("template"."repeats" is null) = ("template"."starts_on" is null)),
	CONSTRAINT "template_needed_after" CHECK ("template"."needed_after" between 1 and 250)
);
--> statement-breakpoint
INSERT INTO "request_kind" ("code", "name") VALUES ('goods', 'goods');--> statement-breakpoint
INSERT INTO "request_kind" ("code", "name") SELECT DISTINCT "kind", "kind" FROM "requisition" ON CONFLICT DO NOTHING;--> statement-breakpoint
ALTER TABLE "ship_to" DROP CONSTRAINT "ship_to_name_unique";--> statement-breakpoint
ALTER TABLE "remark" DROP CONSTRAINT "remark_kind";--> statement-breakpoint
ALTER TABLE "supplier" DROP CONSTRAINT "supplier_standing";--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "warning" text;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "warning_mode" text DEFAULT 'informs' NOT NULL;--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "second_description" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "discount_percent" numeric(24, 6);--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "discount_amount" numeric(30, 20);--> statement-breakpoint
ALTER TABLE "ship_to" ADD COLUMN "is_once" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "address" jsonb;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "attention" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "telephone" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "instructions" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "justification" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "note_to_supplier" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "note_internal" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "own" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "read_warnings" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "reminded_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "second_description" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "list_price" numeric(24, 6);--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "price_with_tax" numeric(24, 6);--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "discount_of" text;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "discount" numeric(24, 6);--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "note_to_supplier" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "note_internal" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "job_id" uuid;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "own" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "new_suppliers" text DEFAULT 'propose' NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "warning_mode" text DEFAULT 'informs' NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "tax_number" text;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "telephone" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "proposed_by_id" uuid;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "proposed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "proposal_note" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "tax_form_hash" text;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "regular" ADD CONSTRAINT "regular_list_id_regular_list_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."regular_list"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "regular" ADD CONSTRAINT "regular_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "regular" ADD CONSTRAINT "regular_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "regular_list" ADD CONSTRAINT "regular_list_owner_id_person_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "regular_list" ADD CONSTRAINT "regular_list_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "saved_view" ADD CONSTRAINT "saved_view_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "template" ADD CONSTRAINT "template_owner_id_person_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "template" ADD CONSTRAINT "template_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "regular_of" ON "regular" USING btree ("list_id","position");--> statement-breakpoint
CREATE INDEX "regular_list_owner" ON "regular_list" USING btree ("owner_id");--> statement-breakpoint
CREATE INDEX "template_owner" ON "template" USING btree ("owner_id");--> statement-breakpoint
CREATE INDEX "template_due" ON "template" USING btree ("next_on") WHERE "template"."next_on" is not null;--> statement-breakpoint
ALTER TABLE "requisition" ADD CONSTRAINT "requisition_kind_request_kind_code_fk" FOREIGN KEY ("kind") REFERENCES "public"."request_kind"("code") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition" ADD CONSTRAINT "requisition_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD CONSTRAINT "requisition_line_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_proposed_by_id_person_id_fk" FOREIGN KEY ("proposed_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_tax_form_hash_file_hash_fk" FOREIGN KEY ("tax_form_hash") REFERENCES "public"."file"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "ship_to_name" ON "ship_to" USING btree ("name") WHERE not "ship_to"."is_once";--> statement-breakpoint
CREATE INDEX "supplier_name_parts" ON "supplier" USING gin (lower("name") gin_trgm_ops);--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_warning_mode" CHECK ("item"."warning_mode" in ('informs', 'must be read', 'stops'));--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_kind" CHECK ("remark"."kind" in ('question', 'answer', 'reason', 'wish'));--> statement-breakpoint
ALTER TABLE "requisition_line" ADD CONSTRAINT "requisition_line_discount" CHECK (("requisition_line"."discount_of" is null) = ("requisition_line"."discount" is null) and "requisition_line"."discount_of" in ('percent', 'amount'));--> statement-breakpoint
ALTER TABLE "organisation" ADD CONSTRAINT "organisation_new_suppliers" CHECK ("organisation"."new_suppliers" in ('nobody', 'propose', 'create'));--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_warning_mode" CHECK ("supplier"."warning_mode" in ('informs', 'must be read', 'stops'));--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_standing" CHECK ("supplier"."standing" in ('active', 'on hold', 'proposed', 'refused'));