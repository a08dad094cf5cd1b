CREATE TABLE "opening_balance" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"budget_line_id" uuid NOT NULL,
	"period" integer NOT NULL,
	"stage" text NOT NULL,
	"number" text DEFAULT '' NOT NULL,
	"supplier_id" uuid,
	"name" text NOT NULL,
	"amount" numeric(20, 4) NOT NULL,
	"is_over" boolean DEFAULT false NOT NULL,
	CONSTRAINT "opening_balance_once" UNIQUE("budget_line_id","period","stage","number"),
	CONSTRAINT "opening_balance_stage" CHECK ("opening_balance"."stage" in ('spent', 'committed')),
	CONSTRAINT "opening_balance_number" CHECK ("opening_balance"."stage" = 'spent' or "opening_balance"."number" <> '')
);
--> statement-breakpoint
CREATE TABLE "item_picture" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"item_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"file_hash" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "limit_for_days" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"person_id" uuid NOT NULL,
	"of" text NOT NULL,
	"amount" numeric(20, 4),
	"from_day" date NOT NULL,
	"until_day" date,
	CONSTRAINT "limit_for_days_once" UNIQUE("person_id","of","from_day"),
	CONSTRAINT "limit_for_days_of" CHECK ("limit_for_days"."of" in ('own', 'deciding', 'ordering')),
	CONSTRAINT "limit_for_days_amount" CHECK ("limit_for_days"."amount" >= 0),
	CONSTRAINT "limit_for_days_until" CHECK ("limit_for_days"."from_day" <= "limit_for_days"."until_day")
);
--> statement-breakpoint
ALTER TABLE "role_grant" DROP CONSTRAINT "role_grant_once";--> statement-breakpoint
ALTER TABLE "laid_file" ADD COLUMN "gone" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "usual_ship_to_id" uuid;--> statement-breakpoint
ALTER TABLE "role_grant" ADD COLUMN "place_id" uuid;--> statement-breakpoint
ALTER TABLE "role_grant" ADD COLUMN "from_day" date;--> statement-breakpoint
ALTER TABLE "role_grant" ADD COLUMN "until_day" date;--> statement-breakpoint
ALTER TABLE "request_kind" ADD COLUMN "raises_parts" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "letterhead" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "keep_sessions_days" integer DEFAULT 30;--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "keep_notices_days" integer;--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "keep_letters_days" integer;--> statement-breakpoint
ALTER TABLE "organisation" ADD COLUMN "keep_people_days" integer;--> statement-breakpoint
ALTER TABLE "opening_balance" ADD CONSTRAINT "opening_balance_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "opening_balance" ADD CONSTRAINT "opening_balance_of" FOREIGN KEY ("budget_line_id","period") REFERENCES "public"."budget_balance"("budget_line_id","period") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_picture" ADD CONSTRAINT "item_picture_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_picture" ADD CONSTRAINT "item_picture_file_hash_file_hash_fk" FOREIGN KEY ("file_hash") REFERENCES "public"."file"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "limit_for_days" ADD CONSTRAINT "limit_for_days_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "item_picture_of" ON "item_picture" USING btree ("item_id","position");--> statement-breakpoint
CREATE INDEX "item_picture_file" ON "item_picture" USING btree ("file_hash");--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_usual_ship_to_id_ship_to_id_fk" FOREIGN KEY ("usual_ship_to_id") REFERENCES "public"."ship_to"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "role_grant" ADD CONSTRAINT "role_grant_place_id_ship_to_id_fk" FOREIGN KEY ("place_id") REFERENCES "public"."ship_to"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "role_grant" ADD CONSTRAINT "role_grant_once" UNIQUE NULLS NOT DISTINCT("person_id","role","department_id","place_id");--> statement-breakpoint
ALTER TABLE "role_grant" ADD CONSTRAINT "role_grant_part" CHECK ("role_grant"."department_id" is null or "role_grant"."place_id" is null);--> statement-breakpoint
ALTER TABLE "role_grant" ADD CONSTRAINT "role_grant_whole" CHECK ("role_grant"."department_id" is not null or "role_grant"."place_id" is not null
        or ("role_grant"."from_day" is null and "role_grant"."until_day" is null));--> statement-breakpoint
ALTER TABLE "organisation" ADD CONSTRAINT "organisation_kept_days" CHECK (least("organisation"."keep_sessions_days", "organisation"."keep_notices_days", "organisation"."keep_letters_days", "organisation"."keep_people_days") >= 1);