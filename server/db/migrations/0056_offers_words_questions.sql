ALTER TABLE "remark" ADD COLUMN "line_id" uuid;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "end_told_for" date;--> statement-breakpoint
ALTER TABLE "tray_part" ADD COLUMN "item_id" uuid;--> statement-breakpoint
ALTER TABLE "requisition" ADD COLUMN "order_words" jsonb;--> statement-breakpoint
ALTER TABLE "tray_part" ADD CONSTRAINT "tray_part_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "remark_line" ON "remark" USING btree ("line_id","at") WHERE "remark"."line_id" is not null;