CREATE INDEX "document_owned" ON "document" USING btree ("owner_id","kind","state","id");--> statement-breakpoint
CREATE INDEX "requisition_amount" ON "requisition" USING btree ("id","amount");