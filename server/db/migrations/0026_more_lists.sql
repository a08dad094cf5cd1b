ALTER TABLE "category" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "same_as_id" uuid;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "successor_id" uuid;--> statement-breakpoint
ALTER TABLE "item" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "holiday" ADD COLUMN "is_off" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "tax_code" ADD COLUMN "retired" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_same_as_id_item_id_fk" FOREIGN KEY ("same_as_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_successor_id_item_id_fk" FOREIGN KEY ("successor_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "item_same_as" ON "item" USING btree ("same_as_id");--> statement-breakpoint
CREATE INDEX "item_category" ON "item" USING btree ("category_id");