CREATE TABLE "approval_decision" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"route_id" uuid NOT NULL,
	"document_id" uuid NOT NULL,
	"actor_id" uuid NOT NULL,
	"for_id" uuid,
	"outcome" text NOT NULL,
	"comment" text DEFAULT '' NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"event_seq" integer NOT NULL,
	"taken_back_at" timestamp with time zone,
	CONSTRAINT "approval_decision_outcome" CHECK ("approval_decision"."outcome" in ('approved', 'sent back', 'rejected'))
);
--> statement-breakpoint
CREATE TABLE "approval_policy" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"in_force_from" date NOT NULL,
	"ending" text NOT NULL,
	"fallback_id" uuid,
	CONSTRAINT "approval_policy_ending" CHECK ("approval_policy"."ending" in ('fallback', 'passes'))
);
--> statement-breakpoint
CREATE TABLE "approval_route" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"document_kind" text NOT NULL,
	"document_id" uuid NOT NULL,
	"round" integer NOT NULL,
	"state" text NOT NULL,
	"amount" numeric(20, 2) NOT NULL,
	"currency" text NOT NULL,
	"route" jsonb NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	CONSTRAINT "approval_route_round" UNIQUE("document_id","round"),
	CONSTRAINT "approval_route_state" CHECK ("approval_route"."state" in ('open', 'held', 'approved', 'stopped'))
);
--> statement-breakpoint
CREATE TABLE "approval_rule" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"policy_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"name" text NOT NULL,
	"conditions" jsonb NOT NULL,
	"spares_managers" boolean DEFAULT false NOT NULL,
	CONSTRAINT "approval_rule_position" UNIQUE("policy_id","position")
);
--> statement-breakpoint
CREATE TABLE "approval_seat" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"route_id" uuid NOT NULL,
	"document_id" uuid NOT NULL,
	"step_at" integer NOT NULL,
	"actor_id" uuid NOT NULL,
	"for_id" uuid,
	"why" jsonb NOT NULL,
	"state" text NOT NULL,
	"opened_at" timestamp with time zone,
	CONSTRAINT "approval_seat_state" CHECK ("approval_seat"."state" in ('ahead', 'open', 'decided', 'met', 'dropped'))
);
--> statement-breakpoint
CREATE TABLE "approval_step" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"rule_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"rank" integer NOT NULL,
	"who" jsonb NOT NULL,
	"must_cover" boolean DEFAULT false NOT NULL,
	CONSTRAINT "approval_step_position" UNIQUE("rule_id","position")
);
--> statement-breakpoint
CREATE TABLE "event" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"actor_id" uuid,
	"for_id" uuid,
	"type" text NOT NULL,
	"subject_kind" text NOT NULL,
	"subject_id" uuid NOT NULL,
	"before" jsonb,
	"after" jsonb
);
--> statement-breakpoint
CREATE TABLE "account" (
	"code" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "budget_balance" (
	"budget_line_id" uuid NOT NULL,
	"period" integer NOT NULL,
	"budgeted" numeric(20, 2) DEFAULT '0' NOT NULL,
	"adjustments" numeric(20, 2) DEFAULT '0' NOT NULL,
	"reserved" numeric(20, 2) DEFAULT '0' NOT NULL,
	"committed" numeric(20, 2) DEFAULT '0' NOT NULL,
	"spent" numeric(20, 2) DEFAULT '0' NOT NULL,
	CONSTRAINT "budget_balance_budget_line_id_period_pk" PRIMARY KEY("budget_line_id","period"),
	CONSTRAINT "budget_balance_reserved" CHECK ("budget_balance"."reserved" >= 0),
	CONSTRAINT "budget_balance_period" CHECK ("budget_balance"."period" between 1 and 12)
);
--> statement-breakpoint
CREATE TABLE "budget_entry" (
	"seq" bigserial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"budget_line_id" uuid NOT NULL,
	"period" integer NOT NULL,
	"stage" text NOT NULL,
	"amount" numeric(20, 2) NOT NULL,
	"document_kind" text NOT NULL,
	"document_id" uuid NOT NULL,
	"line_id" uuid NOT NULL,
	"coding_at" integer NOT NULL,
	"cause" text NOT NULL,
	"actor_id" uuid,
	CONSTRAINT "budget_entry_stage" CHECK ("budget_entry"."stage" in ('reserved', 'committed', 'spent'))
);
--> statement-breakpoint
CREATE TABLE "budget_line" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"department_id" uuid NOT NULL,
	"account_code" text NOT NULL,
	"project_code" text,
	"fiscal_year" integer NOT NULL,
	"name" text NOT NULL,
	"control" text NOT NULL,
	"may_fall_below" numeric(20, 2) DEFAULT '0' NOT NULL,
	"span" text DEFAULT 'year' NOT NULL,
	"holder_id" uuid,
	CONSTRAINT "budget_line_once" UNIQUE NULLS NOT DISTINCT("department_id","account_code","project_code","fiscal_year"),
	CONSTRAINT "budget_line_control" CHECK ("budget_line"."control" in ('tells', 'asks', 'refuses')),
	CONSTRAINT "budget_line_span" CHECK ("budget_line"."span" in ('year', 'to date', 'period'))
);
--> statement-breakpoint
CREATE TABLE "category" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"parent_id" uuid,
	"account_code" text,
	CONSTRAINT "category_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "item" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"number" text NOT NULL,
	"name" text NOT NULL,
	"description" text DEFAULT '' NOT NULL,
	"category_id" uuid NOT NULL,
	"supplier_id" uuid NOT NULL,
	"supplier_part" text NOT NULL,
	"unit" text NOT NULL,
	"price_base" numeric(20, 6) DEFAULT '1' NOT NULL,
	"currency" text NOT NULL,
	"tax_code" text NOT NULL,
	"lead_days" integer NOT NULL,
	"pack_size" numeric(20, 6),
	"has_agreement" integer DEFAULT 0 NOT NULL,
	"search_text" text NOT NULL,
	CONSTRAINT "item_number_unique" UNIQUE("number"),
	CONSTRAINT "item_supplier_part" UNIQUE("supplier_id","supplier_part")
);
--> statement-breakpoint
CREATE TABLE "item_price" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"item_id" uuid NOT NULL,
	"from_quantity" numeric(20, 6) NOT NULL,
	"unit_price" numeric(20, 6) NOT NULL,
	"valid_from" date,
	"valid_until" date,
	CONSTRAINT "item_price_sound" CHECK ("item_price"."unit_price" >= 0 and "item_price"."from_quantity" >= 0)
);
--> statement-breakpoint
CREATE TABLE "file" (
	"hash" text PRIMARY KEY NOT NULL,
	"mime" text NOT NULL,
	"size" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"kept_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "outgoing_mail" (
	"id" uuid PRIMARY KEY NOT NULL,
	"message_id" text NOT NULL,
	"to_name" text NOT NULL,
	"to_address" text NOT NULL,
	"subject" text NOT NULL,
	"body" text NOT NULL,
	"attachments" jsonb NOT NULL,
	"about_kind" text NOT NULL,
	"about_id" uuid NOT NULL,
	"decision_id" uuid,
	"created_at" timestamp with time zone NOT NULL,
	"not_before" timestamp with time zone NOT NULL,
	"sent_at" timestamp with time zone,
	"cancelled_at" timestamp with time zone,
	"attempts" integer DEFAULT 0 NOT NULL,
	"last_error" text,
	CONSTRAINT "outgoing_mail_message_id_unique" UNIQUE("message_id")
);
--> statement-breakpoint
CREATE TABLE "order_line" (
	"id" uuid PRIMARY KEY NOT NULL,
	"order_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"item_id" uuid,
	"description" text NOT NULL,
	"supplier_part" text,
	"quantity" numeric(24, 6) NOT NULL,
	"unit" text NOT NULL,
	"unit_price" numeric(24, 6) NOT NULL,
	"price_base" numeric(20, 6) NOT NULL,
	"tax_code" text NOT NULL,
	"tax_rate" numeric(6, 3) NOT NULL,
	"need_by" date NOT NULL,
	"net" numeric(20, 4) NOT NULL,
	CONSTRAINT "order_line_position" UNIQUE("order_id","position")
);
--> statement-breakpoint
CREATE TABLE "order_line_source" (
	"order_line_id" uuid NOT NULL,
	"requisition_line_id" uuid NOT NULL,
	"quantity" numeric(24, 6) NOT NULL,
	CONSTRAINT "order_line_source_order_line_id_requisition_line_id_pk" PRIMARY KEY("order_line_id","requisition_line_id")
);
--> statement-breakpoint
CREATE TABLE "order_revision" (
	"order_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"issued_by_id" uuid NOT NULL,
	"issued_at" timestamp with time zone NOT NULL,
	"snapshot" jsonb NOT NULL,
	"pdf_hash" text,
	"mail_id" uuid,
	CONSTRAINT "order_revision_order_id_revision_pk" PRIMARY KEY("order_id","revision")
);
--> statement-breakpoint
CREATE TABLE "purchase_order" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" text,
	"version" integer DEFAULT 1 NOT NULL,
	"state" text DEFAULT 'draft' NOT NULL,
	"buyer_id" uuid NOT NULL,
	"supplier_id" uuid NOT NULL,
	"ship_to_id" uuid NOT NULL,
	"currency" text NOT NULL,
	"terms_kind" text NOT NULL,
	"terms_days" integer NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"revision" integer DEFAULT 0 NOT NULL,
	"to_base" numeric(30, 20),
	"net" numeric(20, 4),
	"tax" numeric(20, 4),
	"created_at" timestamp with time zone NOT NULL,
	"issued_at" timestamp with time zone,
	CONSTRAINT "purchase_order_state" CHECK ("purchase_order"."state" in ('draft', 'in approval', 'approved', 'issued', 'acknowledged', 'part received', 'received', 'closed', 'cancelled')),
	CONSTRAINT "purchase_order_numbered" CHECK ("purchase_order"."state" in ('draft', 'in approval', 'approved') or "purchase_order"."number" is not null)
);
--> statement-breakpoint
CREATE TABLE "tray_part" (
	"order_id" uuid NOT NULL,
	"requisition_line_id" uuid NOT NULL,
	"quantity" numeric(24, 6) NOT NULL,
	"unit_price" numeric(24, 6),
	"added_at" timestamp with time zone NOT NULL,
	CONSTRAINT "tray_part_order_id_requisition_line_id_pk" PRIMARY KEY("order_id","requisition_line_id"),
	CONSTRAINT "tray_part_quantity" CHECK ("tray_part"."quantity" > 0)
);
--> statement-breakpoint
CREATE TABLE "absence" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"person_id" uuid NOT NULL,
	"from_day" date NOT NULL,
	"until_day" date NOT NULL,
	"substitute_id" uuid,
	"note" text DEFAULT '' NOT NULL,
	"version" numeric(10, 0) DEFAULT '1' NOT NULL,
	CONSTRAINT "absence_days" CHECK ("absence"."from_day" <= "absence"."until_day"),
	CONSTRAINT "absence_substitute" CHECK ("absence"."substitute_id" is null or "absence"."substitute_id" <> "absence"."person_id")
);
--> statement-breakpoint
CREATE TABLE "department" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"cost_centre" text NOT NULL,
	"parent_id" uuid,
	"reclaimable" numeric(5, 2) DEFAULT '0' NOT NULL,
	"usual_ship_to_id" uuid,
	CONSTRAINT "department_name_unique" UNIQUE("name"),
	CONSTRAINT "department_cost_centre_unique" UNIQUE("cost_centre"),
	CONSTRAINT "department_reclaimable" CHECK ("department"."reclaimable" between 0 and 100)
);
--> statement-breakpoint
CREATE TABLE "department_member" (
	"person_id" uuid NOT NULL,
	"department_id" uuid NOT NULL,
	CONSTRAINT "department_member_person_id_department_id_pk" PRIMARY KEY("person_id","department_id")
);
--> statement-breakpoint
CREATE TABLE "notice" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"person_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"sentence" text NOT NULL,
	"about_kind" text NOT NULL,
	"about_id" uuid NOT NULL,
	"read_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"job_title" text DEFAULT '' NOT NULL,
	"password_hash" text,
	"department_id" uuid NOT NULL,
	"manager_id" uuid,
	"own_limit" numeric(20, 2),
	"deciding_limit" numeric(20, 2),
	"ordering_limit" numeric(20, 2),
	"left_on" date,
	"locale" text DEFAULT 'en-GB' NOT NULL,
	"demo_note" text,
	"demo_rank" numeric(4, 0),
	CONSTRAINT "person_limits" CHECK (coalesce("person"."own_limit", 0) >= 0 and coalesce("person"."deciding_limit", 0) >= 0 and coalesce("person"."ordering_limit", 0) >= 0)
);
--> statement-breakpoint
CREATE TABLE "role_grant" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"person_id" uuid NOT NULL,
	"role" text NOT NULL,
	"department_id" uuid,
	CONSTRAINT "role_grant_once" UNIQUE NULLS NOT DISTINCT("person_id","role","department_id")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	"ended_at" timestamp with time zone,
	"by_demo" boolean DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE TABLE "ship_to" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"name" text NOT NULL,
	"street" text NOT NULL,
	"postcode" text NOT NULL,
	"town" text NOT NULL,
	"country" text NOT NULL,
	CONSTRAINT "ship_to_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempt" (
	"key" text PRIMARY KEY NOT NULL,
	"window_from" timestamp with time zone NOT NULL,
	"count" numeric(6, 0) NOT NULL
);
--> statement-breakpoint
CREATE TABLE "attachment" (
	"id" uuid PRIMARY KEY NOT NULL,
	"requisition_id" uuid NOT NULL,
	"file_hash" text NOT NULL,
	"name" text NOT NULL,
	"kind" text DEFAULT 'quote' NOT NULL,
	"for_supplier" boolean DEFAULT false NOT NULL,
	"added_by_id" uuid NOT NULL,
	"added_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "remark" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"requisition_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"kind" text NOT NULL,
	"text" text NOT NULL,
	"answered_at" timestamp with time zone,
	"decision_id" uuid,
	CONSTRAINT "remark_kind" CHECK ("remark"."kind" in ('question', 'answer', 'reason'))
);
--> statement-breakpoint
CREATE TABLE "requisition" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" text,
	"version" integer DEFAULT 1 NOT NULL,
	"state" text DEFAULT 'draft' NOT NULL,
	"kind" text DEFAULT 'goods' NOT NULL,
	"title" text DEFAULT '' NOT NULL,
	"department_id" uuid,
	"raised_by_id" uuid NOT NULL,
	"owner_id" uuid NOT NULL,
	"ship_to_id" uuid,
	"ship_to_detail" text DEFAULT '' NOT NULL,
	"need_by" date,
	"why" text DEFAULT '' NOT NULL,
	"over_budget_reason" text DEFAULT '' NOT NULL,
	"accounting_date" date,
	"fiscal_year" integer,
	"period" integer,
	"amount" numeric(20, 2),
	"round" integer DEFAULT 0 NOT NULL,
	"sent_draft" jsonb,
	"created_at" timestamp with time zone NOT NULL,
	"changed_at" timestamp with time zone NOT NULL,
	"sent_at" timestamp with time zone,
	"state_since" timestamp with time zone NOT NULL,
	CONSTRAINT "requisition_state" CHECK ("requisition"."state" in ('draft', 'in approval', 'approved', 'part ordered', 'ordered', 'closed', 'sent back', 'rejected', 'withdrawn', 'cancelled')),
	CONSTRAINT "requisition_numbered" CHECK ("requisition"."state" = 'draft' or "requisition"."number" is not null)
);
--> statement-breakpoint
CREATE TABLE "requisition_coding" (
	"line_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"budget_line_id" uuid NOT NULL,
	"value" numeric(24, 6),
	"reclaimable" numeric(5, 2),
	CONSTRAINT "requisition_coding_line_id_position_pk" PRIMARY KEY("line_id","position")
);
--> statement-breakpoint
CREATE TABLE "requisition_line" (
	"id" uuid PRIMARY KEY NOT NULL,
	"requisition_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"item_id" uuid,
	"category_id" uuid,
	"description" text NOT NULL,
	"quantity" numeric(24, 6) NOT NULL,
	"unit" text NOT NULL,
	"unit_price" numeric(24, 6),
	"price_base" numeric(20, 6) DEFAULT '1' NOT NULL,
	"currency" text NOT NULL,
	"to_base" numeric(30, 20),
	"tax_code" text NOT NULL,
	"tax_rate" numeric(6, 3),
	"supplier_id" uuid,
	"supplier_part" text,
	"split_method" text DEFAULT 'percent' NOT NULL,
	"ordered" numeric(24, 6) DEFAULT '0' NOT NULL,
	"on_tray" numeric(24, 6) DEFAULT '0' NOT NULL,
	"cancelled" numeric(24, 6) DEFAULT '0' NOT NULL,
	CONSTRAINT "requisition_line_quantities" CHECK ("requisition_line"."ordered" >= 0 and "requisition_line"."on_tray" >= 0 and "requisition_line"."cancelled" >= 0)
);
--> statement-breakpoint
CREATE TABLE "exchange_rate" (
	"day" date NOT NULL,
	"currency" text NOT NULL,
	"per_base" numeric(20, 8) NOT NULL,
	CONSTRAINT "exchange_rate_currency_day_pk" PRIMARY KEY("currency","day"),
	CONSTRAINT "exchange_rate_positive" CHECK ("exchange_rate"."per_base" > 0)
);
--> statement-breakpoint
CREATE TABLE "fiscal_period" (
	"year" integer NOT NULL,
	"period" integer NOT NULL,
	"from_day" date NOT NULL,
	"until_day" date NOT NULL,
	"closed_at" timestamp with time zone,
	CONSTRAINT "fiscal_period_year_period_pk" PRIMARY KEY("year","period")
);
--> statement-breakpoint
CREATE TABLE "holiday" (
	"day" date PRIMARY KEY NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "idempotency" (
	"person_id" text NOT NULL,
	"key" text NOT NULL,
	"route" text NOT NULL,
	"body_hash" text NOT NULL,
	"status" integer NOT NULL,
	"reply" jsonb,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "idempotency_person_id_key_pk" PRIMARY KEY("person_id","key")
);
--> statement-breakpoint
CREATE TABLE "number_series" (
	"series" text NOT NULL,
	"fiscal_year" integer NOT NULL,
	"last" integer NOT NULL,
	CONSTRAINT "number_series_series_fiscal_year_pk" PRIMARY KEY("series","fiscal_year")
);
--> statement-breakpoint
CREATE TABLE "organisation" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"name" text NOT NULL,
	"address" text NOT NULL,
	"time_zone" text NOT NULL,
	"base_currency" text NOT NULL,
	"fiscal_start_month" integer NOT NULL,
	"order_tolerance_percent" numeric(5, 2) NOT NULL,
	"order_tolerance_amount" numeric(20, 2) NOT NULL,
	"mail_from" text NOT NULL,
	"is_demo" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "organisation_one" CHECK ("organisation"."id" = 1)
);
--> statement-breakpoint
CREATE TABLE "tax_code" (
	"code" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"category" text NOT NULL,
	"rate" numeric(6, 3) NOT NULL
);
--> statement-breakpoint
CREATE TABLE "supplier" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"number" text NOT NULL,
	"name" text NOT NULL,
	"town" text DEFAULT '' NOT NULL,
	"address" text DEFAULT '' NOT NULL,
	"email" text,
	"currency" text NOT NULL,
	"terms_kind" text DEFAULT 'net' NOT NULL,
	"terms_days" integer DEFAULT 30 NOT NULL,
	"lead_days" integer DEFAULT 5 NOT NULL,
	"standing" text DEFAULT 'active' NOT NULL,
	"warning" text,
	"freight" numeric(20, 2),
	"freight_free_from" numeric(20, 2),
	CONSTRAINT "supplier_number_unique" UNIQUE("number"),
	CONSTRAINT "supplier_standing" CHECK ("supplier"."standing" in ('active', 'on hold', 'proposed')),
	CONSTRAINT "supplier_terms" CHECK ("supplier"."terms_kind" in ('net', 'month-end'))
);
--> statement-breakpoint
ALTER TABLE "approval_decision" ADD CONSTRAINT "approval_decision_route_id_approval_route_id_fk" FOREIGN KEY ("route_id") REFERENCES "public"."approval_route"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_decision" ADD CONSTRAINT "approval_decision_actor_id_person_id_fk" FOREIGN KEY ("actor_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_decision" ADD CONSTRAINT "approval_decision_for_id_person_id_fk" FOREIGN KEY ("for_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_policy" ADD CONSTRAINT "approval_policy_fallback_id_person_id_fk" FOREIGN KEY ("fallback_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_rule" ADD CONSTRAINT "approval_rule_policy_id_approval_policy_id_fk" FOREIGN KEY ("policy_id") REFERENCES "public"."approval_policy"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_seat" ADD CONSTRAINT "approval_seat_route_id_approval_route_id_fk" FOREIGN KEY ("route_id") REFERENCES "public"."approval_route"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_seat" ADD CONSTRAINT "approval_seat_actor_id_person_id_fk" FOREIGN KEY ("actor_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_seat" ADD CONSTRAINT "approval_seat_for_id_person_id_fk" FOREIGN KEY ("for_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "approval_step" ADD CONSTRAINT "approval_step_rule_id_approval_rule_id_fk" FOREIGN KEY ("rule_id") REFERENCES "public"."approval_rule"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "event" ADD CONSTRAINT "event_actor_id_person_id_fk" FOREIGN KEY ("actor_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "event" ADD CONSTRAINT "event_for_id_person_id_fk" FOREIGN KEY ("for_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_balance" ADD CONSTRAINT "budget_balance_budget_line_id_budget_line_id_fk" FOREIGN KEY ("budget_line_id") REFERENCES "public"."budget_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_entry" ADD CONSTRAINT "budget_entry_budget_line_id_budget_line_id_fk" FOREIGN KEY ("budget_line_id") REFERENCES "public"."budget_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_entry" ADD CONSTRAINT "budget_entry_actor_id_person_id_fk" FOREIGN KEY ("actor_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_line" ADD CONSTRAINT "budget_line_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_line" ADD CONSTRAINT "budget_line_account_code_account_code_fk" FOREIGN KEY ("account_code") REFERENCES "public"."account"("code") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "budget_line" ADD CONSTRAINT "budget_line_holder_id_person_id_fk" FOREIGN KEY ("holder_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "category" ADD CONSTRAINT "category_parent_id_category_id_fk" FOREIGN KEY ("parent_id") REFERENCES "public"."category"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "category" ADD CONSTRAINT "category_account_code_account_code_fk" FOREIGN KEY ("account_code") REFERENCES "public"."account"("code") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_category_id_category_id_fk" FOREIGN KEY ("category_id") REFERENCES "public"."category"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item" ADD CONSTRAINT "item_tax_code_tax_code_code_fk" FOREIGN KEY ("tax_code") REFERENCES "public"."tax_code"("code") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "item_price" ADD CONSTRAINT "item_price_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_order_id_purchase_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."purchase_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line" ADD CONSTRAINT "order_line_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line_source" ADD CONSTRAINT "order_line_source_order_line_id_order_line_id_fk" FOREIGN KEY ("order_line_id") REFERENCES "public"."order_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line_source" ADD CONSTRAINT "order_line_source_requisition_line_id_requisition_line_id_fk" FOREIGN KEY ("requisition_line_id") REFERENCES "public"."requisition_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_revision" ADD CONSTRAINT "order_revision_order_id_purchase_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."purchase_order"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_revision" ADD CONSTRAINT "order_revision_issued_by_id_person_id_fk" FOREIGN KEY ("issued_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_revision" ADD CONSTRAINT "order_revision_pdf_hash_file_hash_fk" FOREIGN KEY ("pdf_hash") REFERENCES "public"."file"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_buyer_id_person_id_fk" FOREIGN KEY ("buyer_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "purchase_order" ADD CONSTRAINT "purchase_order_ship_to_id_ship_to_id_fk" FOREIGN KEY ("ship_to_id") REFERENCES "public"."ship_to"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tray_part" ADD CONSTRAINT "tray_part_order_id_purchase_order_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."purchase_order"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "tray_part" ADD CONSTRAINT "tray_part_requisition_line_id_requisition_line_id_fk" FOREIGN KEY ("requisition_line_id") REFERENCES "public"."requisition_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "absence" ADD CONSTRAINT "absence_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "absence" ADD CONSTRAINT "absence_substitute_id_person_id_fk" FOREIGN KEY ("substitute_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "department" ADD CONSTRAINT "department_parent_id_department_id_fk" FOREIGN KEY ("parent_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "department" ADD CONSTRAINT "department_usual_ship_to_id_ship_to_id_fk" FOREIGN KEY ("usual_ship_to_id") REFERENCES "public"."ship_to"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "department_member" ADD CONSTRAINT "department_member_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "department_member" ADD CONSTRAINT "department_member_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notice" ADD CONSTRAINT "notice_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_manager_id_person_id_fk" FOREIGN KEY ("manager_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "role_grant" ADD CONSTRAINT "role_grant_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "role_grant" ADD CONSTRAINT "role_grant_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attachment" ADD CONSTRAINT "attachment_requisition_id_requisition_id_fk" FOREIGN KEY ("requisition_id") REFERENCES "public"."requisition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attachment" ADD CONSTRAINT "attachment_file_hash_file_hash_fk" FOREIGN KEY ("file_hash") REFERENCES "public"."file"("hash") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "attachment" ADD CONSTRAINT "attachment_added_by_id_person_id_fk" FOREIGN KEY ("added_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_requisition_id_requisition_id_fk" FOREIGN KEY ("requisition_id") REFERENCES "public"."requisition"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "remark" ADD CONSTRAINT "remark_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition" ADD CONSTRAINT "requisition_department_id_department_id_fk" FOREIGN KEY ("department_id") REFERENCES "public"."department"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition" ADD CONSTRAINT "requisition_raised_by_id_person_id_fk" FOREIGN KEY ("raised_by_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition" ADD CONSTRAINT "requisition_owner_id_person_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition" ADD CONSTRAINT "requisition_ship_to_id_ship_to_id_fk" FOREIGN KEY ("ship_to_id") REFERENCES "public"."ship_to"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition_coding" ADD CONSTRAINT "requisition_coding_line_id_requisition_line_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."requisition_line"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition_coding" ADD CONSTRAINT "requisition_coding_budget_line_id_budget_line_id_fk" FOREIGN KEY ("budget_line_id") REFERENCES "public"."budget_line"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD CONSTRAINT "requisition_line_requisition_id_requisition_id_fk" FOREIGN KEY ("requisition_id") REFERENCES "public"."requisition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD CONSTRAINT "requisition_line_item_id_item_id_fk" FOREIGN KEY ("item_id") REFERENCES "public"."item"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD CONSTRAINT "requisition_line_category_id_category_id_fk" FOREIGN KEY ("category_id") REFERENCES "public"."category"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "requisition_line" ADD CONSTRAINT "requisition_line_supplier_id_supplier_id_fk" FOREIGN KEY ("supplier_id") REFERENCES "public"."supplier"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "approval_decision_document" ON "approval_decision" USING btree ("document_id");--> statement-breakpoint
CREATE INDEX "approval_seat_waiting" ON "approval_seat" USING btree ("actor_id","opened_at") WHERE "approval_seat"."state" = 'open';--> statement-breakpoint
CREATE INDEX "approval_seat_document" ON "approval_seat" USING btree ("document_id");--> statement-breakpoint
CREATE INDEX "approval_seat_route" ON "approval_seat" USING btree ("route_id");--> statement-breakpoint
CREATE INDEX "event_subject" ON "event" USING btree ("subject_id","seq");--> statement-breakpoint
CREATE INDEX "budget_entry_line" ON "budget_entry" USING btree ("budget_line_id","seq");--> statement-breakpoint
CREATE INDEX "budget_entry_document" ON "budget_entry" USING btree ("document_id");--> statement-breakpoint
CREATE INDEX "budget_line_holder" ON "budget_line" USING btree ("holder_id");--> statement-breakpoint
CREATE INDEX "item_search" ON "item" USING gin ("search_text" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "item_price_item" ON "item_price" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "outgoing_mail_waiting" ON "outgoing_mail" USING btree ("not_before") WHERE "outgoing_mail"."sent_at" is null and "outgoing_mail"."cancelled_at" is null;--> statement-breakpoint
CREATE INDEX "order_line_item" ON "order_line" USING btree ("item_id");--> statement-breakpoint
CREATE INDEX "order_line_source_line" ON "order_line_source" USING btree ("requisition_line_id");--> statement-breakpoint
CREATE UNIQUE INDEX "purchase_order_number" ON "purchase_order" USING btree ("number");--> statement-breakpoint
CREATE INDEX "purchase_order_buyer" ON "purchase_order" USING btree ("buyer_id","state");--> statement-breakpoint
CREATE INDEX "tray_part_line" ON "tray_part" USING btree ("requisition_line_id");--> statement-breakpoint
CREATE INDEX "absence_person" ON "absence" USING btree ("person_id","until_day");--> statement-breakpoint
CREATE INDEX "notice_person" ON "notice" USING btree ("person_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "person_email" ON "person" USING btree (lower("email"));--> statement-breakpoint
CREATE INDEX "person_manager" ON "person" USING btree ("manager_id");--> statement-breakpoint
CREATE INDEX "attachment_requisition" ON "attachment" USING btree ("requisition_id");--> statement-breakpoint
CREATE INDEX "remark_requisition" ON "remark" USING btree ("requisition_id","at");--> statement-breakpoint
CREATE UNIQUE INDEX "requisition_number" ON "requisition" USING btree ("number");--> statement-breakpoint
CREATE INDEX "requisition_owner" ON "requisition" USING btree ("owner_id","changed_at" DESC NULLS LAST,"id");--> statement-breakpoint
CREATE INDEX "requisition_raised_by" ON "requisition" USING btree ("raised_by_id");--> statement-breakpoint
CREATE INDEX "requisition_open" ON "requisition" USING btree ("state") WHERE "requisition"."state" in ('approved', 'part ordered', 'in approval');--> statement-breakpoint
CREATE INDEX "requisition_coding_budget" ON "requisition_coding" USING btree ("budget_line_id");--> statement-breakpoint
CREATE INDEX "requisition_line_of" ON "requisition_line" USING btree ("requisition_id","position");--> statement-breakpoint
CREATE INDEX "requisition_line_item" ON "requisition_line" USING btree ("item_id");