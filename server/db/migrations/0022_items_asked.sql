CREATE TABLE "item_asked" (
	"item_id" uuid NOT NULL,
	"department_id" uuid NOT NULL,
	"lines" integer NOT NULL,
	CONSTRAINT "item_asked_item_id_department_id_pk" PRIMARY KEY("item_id","department_id")
);
--> statement-breakpoint
ALTER TABLE "item_asked" ADD CONSTRAINT "item_asked_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_asked" ADD CONSTRAINT "item_asked_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
INSERT INTO "item_asked" ("item_id", "department_id", "lines")
SELECT (l ->> 'itemId')::uuid, (r."sent_draft" ->> 'departmentId')::uuid, count(*)
FROM "requisition" r, jsonb_array_elements(r."sent_draft" -> 'lines') l
WHERE l ->> 'itemId' IS NOT NULL AND r."sent_draft" ->> 'departmentId' IS NOT NULL
GROUP BY 1, 2;
