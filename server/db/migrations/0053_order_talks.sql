CREATE TABLE "order_talk" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"order_id" uuid NOT NULL,
	"by_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"way" text NOT NULL,
	"talked_with" text NOT NULL,
	"text" text NOT NULL,
	CONSTRAINT "order_talk_way" CHECK ("order_talk"."way" in ('telephone', 'mail', 'in person'))
);
--> statement-breakpoint
ALTER TABLE "order_talk" ADD CONSTRAINT "order_talk_order_id_purchase_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."purchase_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_talk" ADD CONSTRAINT "order_talk_by_id_person_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "order_talk_order" ON "order_talk" USING btree ("order_id","at");