-- A price for none of a unit was let in once; it counts by one.
update requisition_line set price_base = 1 where price_base <= 0;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD CONSTRAINT "requisition_line_price_base" CHECK ("requisition_line"."price_base" > 0);