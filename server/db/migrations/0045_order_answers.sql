CREATE TABLE "order_answer" (
	"id" uuid PRIMARY KEY NOT NULL,
	"order_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"way" text NOT NULL,
	"by_name" text NOT NULL,
	"entered_by_id" uuid,
	"lines" jsonb NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"given_at" timestamp with time zone NOT NULL,
	"outcome" text NOT NULL,
	"ended_at" timestamp with time zone,
	"said" text DEFAULT '' NOT NULL,
	CONSTRAINT "order_answer_way" CHECK ("order_answer"."way" in ('link', 'buyer', 'response')),
	CONSTRAINT "order_answer_outcome" CHECK ("order_answer"."outcome" in ('waits', 'holds', 'declined', 'replaced')),
	CONSTRAINT "order_answer_entered" CHECK (("order_answer"."way" = 'link') = ("order_answer"."entered_by_id" is null)),
	CONSTRAINT "order_answer_ended" CHECK (("order_answer"."outcome" = 'waits') = ("order_answer"."ended_at" is null))
);
--> statement-breakpoint
ALTER TABLE "order_line" ADD COLUMN "promised_on" date;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "reminded_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "order_answer" ADD CONSTRAINT "order_answer_entered_by_id_person_id_fk" FOREIGN KEY ("entered_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_answer" ADD CONSTRAINT "order_answer_order_id_revision_order_revision_order_id_revision_fk" FOREIGN KEY ("order_id","revision") REFERENCES "public"."order_revision"("order_id","revision") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "order_answer_waits" ON "order_answer" USING btree ("order_id") WHERE "order_answer"."outcome" = 'waits';--> statement-breakpoint
CREATE INDEX "order_answer_order" ON "order_answer" USING btree ("order_id","given_at");