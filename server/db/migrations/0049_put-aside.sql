ALTER TABLE "requisition_line" ADD COLUMN "aside_until" date;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD COLUMN "aside_reason" text DEFAULT '' NOT NULL;