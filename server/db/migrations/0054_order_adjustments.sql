ALTER TABLE "order_line" RENAME COLUMN "freight" TO "borne";--> statement-breakpoint
ALTER TABLE "order_change" ADD COLUMN "adjustments" jsonb;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "adjustments" jsonb DEFAULT '[]'::jsonb NOT NULL;