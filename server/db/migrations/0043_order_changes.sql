CREATE TABLE "order_change" (
	"id" uuid PRIMARY KEY NOT NULL,
	"order_id" uuid NOT NULL,
	"lines" jsonb NOT NULL,
	"ship_to_id" uuid,
	"rest" text NOT NULL,
	"reason" text NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"is_under_way" boolean NOT NULL,
	"revision" integer,
	CONSTRAINT "order_change_rest" CHECK ("order_change"."rest" in ('returns', 'ends')),
	CONSTRAINT "order_change_over" CHECK (not "order_change"."is_under_way" or "order_change"."revision" is null)
);
--> statement-breakpoint
ALTER TABLE "order_change" ADD CONSTRAINT "order_change_id_document_id_fk" FOREIGN KEY ("id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_change" ADD CONSTRAINT "order_change_order_id_purchase_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."purchase_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_change" ADD CONSTRAINT "order_change_ship_to_id_ship_to_id_fk" FOREIGN KEY ("ship_to_id") REFERENCES "public"."ship_to"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "order_change_under_way" ON "order_change" USING btree ("order_id") WHERE "order_change"."is_under_way";--> statement-breakpoint
CREATE INDEX "order_change_order" ON "order_change" USING btree ("order_id");--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_order_change" CHECK ("document"."kind" <> 'order change' or ("document"."number" is null
        and "document"."state" in ('draft', 'in approval', 'approved', 'in force', 'cancelled')));