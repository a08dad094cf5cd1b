CREATE TABLE "known_word" (
	"word" text PRIMARY KEY NOT NULL,
	"letters" text NOT NULL
);
--> statement-breakpoint
CREATE INDEX "known_word_alike" ON "known_word" USING gin ("word" gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "known_word_letters" ON "known_word" USING btree ("letters");--> statement-breakpoint
-- The words of every item that is written, by whatever way: letters alone, from three of them on.
CREATE FUNCTION "keep_known_words"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO "known_word" ("word", "letters")
  SELECT w.word, (SELECT string_agg(l, '' ORDER BY l COLLATE "C") FROM regexp_split_to_table(w.word, '') l)
  FROM (SELECT DISTINCT regexp_split_to_table(lower(n."search_text"), '[[:space:][:punct:]]+') AS word FROM written n) w
  WHERE length(w.word) >= 3 AND w.word !~ '[0-9]'
  ON CONFLICT DO NOTHING;
  RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "item_inserted_words" AFTER INSERT ON "item" REFERENCING NEW TABLE AS written
  FOR EACH STATEMENT EXECUTE FUNCTION "keep_known_words"();--> statement-breakpoint
CREATE TRIGGER "item_updated_words" AFTER UPDATE ON "item" REFERENCING NEW TABLE AS written
  FOR EACH STATEMENT EXECUTE FUNCTION "keep_known_words"();--> statement-breakpoint
-- Numbers are found without their punctuation too; writing it fills the words of what is there.
UPDATE "item" i SET "search_text" = CASE WHEN i."search_text" LIKE '%' || p.plain THEN i."search_text"
    ELSE i."search_text" || ' ' || p.plain END
FROM (SELECT "id", regexp_replace(lower("number"), '[[:space:][:punct:]]', '', 'g') || ' ' ||
    regexp_replace(lower("supplier_part"), '[[:space:][:punct:]]', '', 'g') AS plain FROM "item") p
WHERE p."id" = i."id";
