CREATE TABLE "agreement" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" text NOT NULL,
	"name" text NOT NULL,
	"their_number" text DEFAULT '' NOT NULL,
	"supplier_id" uuid NOT NULL,
	"currency" text NOT NULL,
	"starts_on" date NOT NULL,
	"ends_on" date NOT NULL,
	"fixes" text NOT NULL,
	"ceiling" numeric(20, 4),
	"drawn" numeric(20, 4) DEFAULT '0' NOT NULL,
	"warn_percent" numeric(5, 2),
	"warn_days" integer NOT NULL,
	"renew_on" date,
	"renewal_told_at" timestamp with time zone,
	"terms_kind" text,
	"terms_days" integer,
	"department_ids" uuid[] DEFAULT '{}' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"keeper_id" uuid NOT NULL,
	"is_closed" boolean DEFAULT false NOT NULL,
	"is_in_force" boolean NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "agreement_number_unique" UNIQUE("number"),
	CONSTRAINT "agreement_fixes" CHECK ("agreement"."fixes" in ('items', 'sum')),
	CONSTRAINT "agreement_term" CHECK ("agreement"."starts_on" <= "agreement"."ends_on"),
	CONSTRAINT "agreement_ceiling" CHECK ("agreement"."ceiling" > 0),
	CONSTRAINT "agreement_warn_percent" CHECK ("agreement"."warn_percent" > 0 and "agreement"."warn_percent" <= 100),
	CONSTRAINT "agreement_terms" CHECK (("agreement"."terms_kind" is null) = ("agreement"."terms_days" is null))
);
--> statement-breakpoint
CREATE TABLE "agreement_item" (
	"agreement_id" uuid NOT NULL,
	"item_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"unit_price" numeric(24, 6),
	CONSTRAINT "agreement_item_agreement_id_item_id_pk" PRIMARY KEY("agreement_id","item_id"),
	CONSTRAINT "agreement_item_price" CHECK ("agreement_item"."unit_price" >= 0)
);
--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "agreement_id" uuid;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "agreement_said" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "agreement" ADD CONSTRAINT "agreement_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "agreement" ADD CONSTRAINT "agreement_keeper_id_person_id_fk" FOREIGN KEY ("keeper_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "agreement_item" ADD CONSTRAINT "agreement_item_agreement_id_agreement_id_fk" FOREIGN KEY ("agreement_id") REFERENCES "public"."agreement"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "agreement_item" ADD CONSTRAINT "agreement_item_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "agreement_supplier" ON "agreement" USING btree ("supplier_id");--> statement-breakpoint
CREATE INDEX "agreement_item_item" ON "agreement_item" USING btree ("item_id");--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_agreement_id_agreement_id_fk" FOREIGN KEY ("agreement_id") REFERENCES "public"."agreement"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "purchase_order_agreement" ON "purchase_order" USING btree ("agreement_id") WHERE "purchase_order"."agreement_id" is not null;--> statement-breakpoint
CREATE INDEX "requisition_line_unordered" ON "requisition_line" USING btree ("supplier_id") WHERE "requisition_line"."quantity" - "requisition_line"."ordered" - "requisition_line"."cancelled" > 0;--> statement-breakpoint
CREATE TRIGGER "agreement_supplier_merged" BEFORE INSERT OR UPDATE OF "supplier_id" ON "agreement"
  FOR EACH ROW EXECUTE FUNCTION "follow_merged_supplier"();
