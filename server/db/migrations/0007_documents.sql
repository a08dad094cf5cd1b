CREATE TABLE "document" (
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"number" text,
	"title" text DEFAULT '' NOT NULL,
	"owner_id" uuid NOT NULL,
	"state" text DEFAULT 'draft' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"sent_at" timestamp with time zone,
	"state_since" timestamp with time zone NOT NULL,
	"sealed_until" timestamp with time zone,
	CONSTRAINT "document_requisition" CHECK ("document"."kind" <> 'requisition' or ("document"."state" in ('draft', 'in approval', 'approved', 'part ordered', 'ordered', 'closed', 'sent back', 'rejected', 'withdrawn', 'cancelled') and ("document"."state" = 'draft' or "document"."number" is not null))),
	CONSTRAINT "document_order" CHECK ("document"."kind" <> 'order' or ("document"."state" in ('draft', 'in approval', 'approved', 'issued', 'acknowledged', 'part received', 'received', 'closed', 'cancelled') and ("document"."state" in ('draft', 'in approval', 'approved') or "document"."number" is not null)))
);
--> statement-breakpoint
CREATE TABLE "order_sending" (
	"id" uuid PRIMARY KEY NOT NULL,
	"order_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"channel" text NOT NULL,
	"address" text NOT NULL,
	"reference" text NOT NULL,
	"outcome" text DEFAULT 'waiting' NOT NULL,
	"laid_at" timestamp with time zone NOT NULL,
	"sent_at" timestamp with time zone,
	"tries" integer DEFAULT 0 NOT NULL,
	"last_error" text,
	CONSTRAINT "order_sending_reference_unique" UNIQUE("reference"),
	CONSTRAINT "order_sending_outcome" CHECK ("order_sending"."outcome" in ('waiting', 'sent', 'given up')),
	CONSTRAINT "order_sending_sent" CHECK (("order_sending"."outcome" = 'sent') = ("order_sending"."sent_at" is not null))
);
--> statement-breakpoint
ALTER TABLE "purchase_order" DROP CONSTRAINT "purchase_order_state";--> statement-breakpoint
ALTER TABLE "purchase_order" DROP CONSTRAINT "purchase_order_numbered";--> statement-breakpoint
ALTER TABLE "remark" DROP CONSTRAINT "remark_kind";--> statement-breakpoint
ALTER TABLE "requisition" DROP CONSTRAINT "requisition_state";--> statement-breakpoint
ALTER TABLE "requisition" DROP CONSTRAINT "requisition_numbered";--> statement-breakpoint
ALTER TABLE "purchase_order" DROP CONSTRAINT "purchase_order_buyer_id_person_id_fk";
--> statement-breakpoint
ALTER TABLE "attachment" DROP CONSTRAINT "attachment_requisition_id_requisition_id_fk";
--> statement-breakpoint
ALTER TABLE "remark" DROP CONSTRAINT "remark_requisition_id_requisition_id_fk";
--> statement-breakpoint
ALTER TABLE "requisition" DROP CONSTRAINT "requisition_kind_request_kind_code_fk";
--> statement-breakpoint
ALTER TABLE "requisition" DROP CONSTRAINT "requisition_owner_id_person_id_fk";
--> statement-breakpoint
DROP INDEX "purchase_order_number";--> statement-breakpoint
DROP INDEX "purchase_order_buyer";--> statement-breakpoint
DROP INDEX "attachment_requisition";--> statement-breakpoint
DROP INDEX "remark_requisition";--> statement-breakpoint
DROP INDEX "requisition_number";--> statement-breakpoint
DROP INDEX "requisition_owner";--> statement-breakpoint
DROP INDEX "requisition_title_words";--> statement-breakpoint
DROP INDEX "requisition_number_parts";--> statement-breakpoint
DROP INDEX "requisition_desk";--> statement-breakpoint
DROP INDEX "requisition_open";--> statement-breakpoint
ALTER TABLE "outgoing_mail" ADD COLUMN "person_id" uuid;--> statement-breakpoint
ALTER TABLE "outgoing_mail" ADD COLUMN "told" jsonb;--> statement-breakpoint
ALTER TABLE "outgoing_mail" ADD COLUMN "path" text;--> statement-breakpoint
ALTER TABLE "notice" ADD COLUMN "told" jsonb;--> statement-breakpoint
ALTER TABLE "notice" ADD COLUMN "decision_id" uuid;--> statement-breakpoint
ALTER TABLE "attachment" RENAME COLUMN "requisition_id" TO "document_id";--> statement-breakpoint
ALTER TABLE "remark" RENAME COLUMN "requisition_id" TO "document_id";--> statement-breakpoint
ALTER TABLE "requisition" RENAME COLUMN "kind" TO "kind_code";--> statement-breakpoint
ALTER TABLE "supplier" ADD COLUMN "channel" text DEFAULT 'e-mail' NOT NULL;--> statement-breakpoint
-- What exists is carried over: each requisition and each order gets its document.
INSERT INTO "document" ("id", "kind", "number", "title", "owner_id", "state", "version", "created_at", "changed_at", "sent_at", "state_since")
SELECT "id", 'requisition', "number", "title", "owner_id", "state", "version", "created_at", "changed_at", "sent_at", "state_since" FROM "requisition";--> statement-breakpoint
INSERT INTO "document" ("id", "kind", "number", "title", "owner_id", "state", "version", "created_at", "changed_at", "sent_at", "state_since")
SELECT o."id", 'order', o."number", s."name", o."buyer_id", o."state", o."version", o."created_at", coalesce(o."issued_at", o."created_at"), o."issued_at", coalesce(o."issued_at", o."created_at")
FROM "purchase_order" o JOIN "supplier" s ON s."id" = o."supplier_id";--> statement-breakpoint
-- An order's mail becomes its sending; one that waits goes on waiting there.
INSERT INTO "order_sending" ("id", "order_id", "revision", "channel", "address", "reference", "outcome", "laid_at", "sent_at", "tries", "last_error")
SELECT m."id", v."order_id", v."revision", 'e-mail', m."to_address", m."message_id", CASE WHEN m."sent_at" IS NULL THEN 'waiting' ELSE 'sent' END, m."created_at", m."sent_at", m."attempts", m."last_error"
FROM "order_revision" v JOIN "outgoing_mail" m ON m."id" = v."mail_id";--> statement-breakpoint
DELETE FROM "outgoing_mail" m USING "order_revision" v WHERE v."mail_id" = m."id";--> statement-breakpoint
UPDATE "outgoing_mail" SET "told" = jsonb_build_object('code', 'plain', 'subject', "subject", 'sentence', "body");--> statement-breakpoint
ALTER TABLE "outgoing_mail" ALTER COLUMN "told" SET NOT NULL;--> statement-breakpoint
UPDATE "notice" SET "told" = jsonb_build_object('code', 'plain', 'subject', '', 'sentence', "sentence");--> statement-breakpoint
ALTER TABLE "notice" ALTER COLUMN "told" SET NOT NULL;--> statement-breakpoint
UPDATE "remark" SET "kind" = 'cancellation wished', "text" = substr("text", length('Please cancel it: ') + 1) WHERE "kind" = 'wish' AND "text" LIKE 'Please cancel it: %';--> statement-breakpoint
UPDATE "remark" SET "kind" = 'change wished', "text" = regexp_replace("text", '^Please change it: ', '') WHERE "kind" = 'wish';--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_owner_id_person_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_sending" ADD CONSTRAINT "order_sending_order_id_revision_order_revision_order_id_revision_fk" FOREIGN KEY ("order_id","revision") REFERENCES "public"."order_revision"("order_id","revision") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "document_number" ON "document" USING btree ("number");--> statement-breakpoint
CREATE INDEX "document_owner" ON "document" USING btree ("owner_id","changed_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "document_title_words" ON "document" USING gin ("title" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "document_number_parts" ON "document" USING gin ("number" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "document_sent" ON "document" USING btree ("kind","sent_at" DESC NULLS FIRST,"id" DESC NULLS FIRST);--> statement-breakpoint
CREATE INDEX "document_open" ON "document" USING btree ("state") WHERE "document"."state" in ('approved', 'part ordered', 'in approval');--> statement-breakpoint
CREATE INDEX "document_to_order" ON "document" USING btree ("sent_at","number") WHERE "document"."kind" = 'requisition' and "document"."state" in ('approved', 'part ordered');--> statement-breakpoint
CREATE INDEX "order_sending_of" ON "order_sending" USING btree ("order_id","revision");--> statement-breakpoint
CREATE INDEX "order_sending_waiting" ON "order_sending" USING btree ("laid_at") WHERE "order_sending"."outcome" = 'waiting';--> statement-breakpoint
ALTER TABLE "approval_route" ADD CONSTRAINT "approval_route_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outgoing_mail" ADD CONSTRAINT "outgoing_mail_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_id_document_id_fk" FOREIGN KEY ("id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attachment" ADD CONSTRAINT "attachment_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition" ADD CONSTRAINT "requisition_id_document_id_fk" FOREIGN KEY ("id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition" ADD CONSTRAINT "requisition_kind_code_request_kind_code_fk" FOREIGN KEY ("kind_code") REFERENCES "public"."request_kind"("code") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "purchase_order_supplier" ON "purchase_order" USING btree ("supplier_id");--> statement-breakpoint
CREATE INDEX "attachment_document" ON "attachment" USING btree ("document_id");--> statement-breakpoint
CREATE INDEX "remark_document" ON "remark" USING btree ("document_id","at");--> statement-breakpoint
CREATE INDEX "requisition_department" ON "requisition" USING btree ("department_id");--> statement-breakpoint
ALTER TABLE "outgoing_mail" DROP COLUMN "subject";--> statement-breakpoint
ALTER TABLE "outgoing_mail" DROP COLUMN "body";--> statement-breakpoint
ALTER TABLE "order_revision" DROP COLUMN "mail_id";--> statement-breakpoint
ALTER TABLE "purchase_order" DROP COLUMN "number";--> statement-breakpoint
ALTER TABLE "purchase_order" DROP COLUMN "version";--> statement-breakpoint
ALTER TABLE "purchase_order" DROP COLUMN "state";--> statement-breakpoint
ALTER TABLE "purchase_order" DROP COLUMN "buyer_id";--> statement-breakpoint
ALTER TABLE "purchase_order" DROP COLUMN "created_at";--> statement-breakpoint
ALTER TABLE "purchase_order" DROP COLUMN "issued_at";--> statement-breakpoint
ALTER TABLE "notice" DROP COLUMN "sentence";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "number";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "version";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "state";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "title";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "owner_id";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "created_at";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "changed_at";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "sent_at";--> statement-breakpoint
ALTER TABLE "requisition" DROP COLUMN "state_since";--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_kind" CHECK ("remark"."kind" in ('question', 'answer', 'reason', 'change wished', 'cancellation wished'));