ALTER TABLE "order_line" ADD COLUMN "blanket_line_id" uuid;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "is_blanket" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "blanket_id" uuid;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_blanket_line_id_order_line_id_fk" FOREIGN KEY ("blanket_line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_blanket_id_purchase_order_id_fk" FOREIGN KEY ("blanket_id") REFERENCES "public"."purchase_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "order_line_blanket" ON "order_line" USING btree ("blanket_line_id") WHERE "order_line"."blanket_line_id" is not null;--> statement-breakpoint
CREATE INDEX "purchase_order_blanket" ON "purchase_order" USING btree ("blanket_id") WHERE "purchase_order"."blanket_id" is not null;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_blanket_ends" CHECK (not "purchase_order"."is_blanket" or ("purchase_order"."expires_on" is not null and "purchase_order"."blanket_id" is null));