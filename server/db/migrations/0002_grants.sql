-- The application connects as rekko_app, which owns nothing. The ledger and the event log are append-only for it.
grant usage on schema public to rekko_app;
--> statement-breakpoint
grant select, insert, update, delete on all tables in schema public to rekko_app;
--> statement-breakpoint
grant usage, select on all sequences in schema public to rekko_app;
--> statement-breakpoint
alter default privileges in schema public grant select, insert, update, delete on tables to rekko_app;
--> statement-breakpoint
alter default privileges in schema public grant usage, select on sequences to rekko_app;
--> statement-breakpoint
revoke update, delete, truncate on budget_entry, event from rekko_app;
