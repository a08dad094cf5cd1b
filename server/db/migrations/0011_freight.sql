ALTER TABLE "order_line" ADD COLUMN "freight" numeric(20, 4) DEFAULT '0' NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "freight" numeric(20, 4) DEFAULT '0' NOT NULL;