ALTER TABLE "document" DROP CONSTRAINT "document_order";--> statement-breakpoint
ALTER TABLE "approval_rule" ADD COLUMN "documents" text DEFAULT 'requests' NOT NULL;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD COLUMN "issues_itself" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "approval_rule" ADD CONSTRAINT "approval_rule_documents" CHECK ("approval_rule"."documents" in ('requests', 'orders', 'both'));--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_order" CHECK ("document"."kind" <> 'order' or ("document"."state" in ('draft', 'in approval', 'approved', 'issued', 'acknowledged',
        'part received', 'received', 'closed', 'cancelled')
        and ("document"."state" in ('draft', 'in approval', 'approved', 'cancelled') or "document"."number" is not null)));