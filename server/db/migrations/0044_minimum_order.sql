ALTER TABLE "supplier" ADD COLUMN "minimum_order" numeric(20, 4);--> statement-breakpoint
ALTER TABLE "supplier" ADD CONSTRAINT "supplier_minimum_order" CHECK ("supplier"."minimum_order" >= 0);