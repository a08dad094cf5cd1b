CREATE TABLE "answer_key" (
	"hash" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"document_id" uuid NOT NULL,
	"round" integer NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "mail_answer" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"key_hash" text NOT NULL,
	"message_id" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"outcome" text NOT NULL,
	"decision_id" uuid,
	CONSTRAINT "mail_answer_message" UNIQUE("key_hash","message_id")
);
--> statement-breakpoint
ALTER TABLE "approval_decision" ADD COLUMN "by_mail" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD COLUMN "by_mail" jsonb;--> statement-breakpoint
ALTER TABLE "answer_key" ADD CONSTRAINT "answer_key_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "answer_key" ADD CONSTRAINT "answer_key_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mail_answer" ADD CONSTRAINT "mail_answer_key_hash_answer_key_hash_fk" FOREIGN KEY ("key_hash") REFERENCES "public"."answer_key"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "answer_key_document" ON "answer_key" USING btree ("document_id");--> statement-breakpoint
UPDATE "policy_draft" SET "form" = "form" || '{"byMail": null}'::jsonb;
