ALTER TABLE "budget_entry" DROP CONSTRAINT "budget_entry_budget_line_id_budget_line_id_fk";
--> statement-breakpoint
ALTER TABLE "budget_entry" ADD CONSTRAINT "budget_entry_balance" FOREIGN KEY ("budget_line_id","period") REFERENCES "public"."budget_balance"("budget_line_id","period") ON DELETE no action ON UPDATE no action;