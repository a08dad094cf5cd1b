ALTER TABLE "purchase_order" ADD COLUMN "terms_said" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "delivery_term" text;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "delivery_place" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "expires_on" date;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "placed_as" text;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "placed_key" text;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "is_sent" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "language" text DEFAULT 'en' NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX "purchase_order_placed" ON "purchase_order" USING btree ("placed_key","supplier_id") WHERE "purchase_order"."placed_key" is not null;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_placed_said" CHECK ("purchase_order"."placed_key" is null or "purchase_order"."placed_as" is not null);--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_unsent" CHECK ("purchase_order"."is_sent" or "purchase_order"."placed_as" is not null);--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_language" CHECK ("supplier"."language" in ('en', 'de', 'fr'));