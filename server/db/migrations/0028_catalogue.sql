ALTER TABLE "category" ADD COLUMN "drawing" text DEFAULT 'box' NOT NULL;--> statement-breakpoint
CREATE INDEX "item_supplier" ON "item" USING btree ("supplier_id");--> statement-breakpoint
CREATE INDEX "item_name" ON "item" USING btree ("name","id") WHERE not "item"."retired";