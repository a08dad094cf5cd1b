create extension if not exists btree_gist;--> statement-breakpoint
-- The same absence was let in by requests that crossed: the first stays, and what overlaps with none that stays.
do $$
declare
  late record;
begin
  for late in select id, person_id, from_day, until_day from absence order by from_day, id loop
    delete from absence where id = late.id and exists (
      select 1 from absence kept where kept.person_id = late.person_id
        and (kept.from_day, kept.id) < (late.from_day, late.id)
        and daterange(kept.from_day, kept.until_day, '[]') && daterange(late.from_day, late.until_day, '[]'));
  end loop;
end $$;--> statement-breakpoint
ALTER TABLE "absence" ADD CONSTRAINT "absence_apart" EXCLUDE USING gist (person_id WITH =, daterange(from_day, until_day, '[]') WITH &&);--> statement-breakpoint
-- And the same supplier: the first keeps the tax number, the others say whose it is.
with numbered as (
  select id, name, number, tax_number,
    first_value(name || ' (' || number || ')') over same_number as first_of_it,
    row_number() over same_number as nth
  from supplier where standing <> 'refused' and tax_number ~ '[A-Za-z0-9]'
  window same_number as (partition by upper(regexp_replace(tax_number, '[^A-Za-z0-9]', '', 'g')) order by number)
)
update supplier set tax_number = null,
  proposal_note = trim('Tax number ' || numbered.tax_number || ', which is that of ' || numbered.first_of_it || '. ' || proposal_note)
from numbered where numbered.id = supplier.id and numbered.nth > 1;--> statement-breakpoint
CREATE UNIQUE INDEX "supplier_one_tax_number" ON "supplier" USING btree ((upper(regexp_replace("tax_number", '[^A-Za-z0-9]', '', 'g')))) WHERE "supplier"."standing" <> 'refused' and "supplier"."tax_number" ~ '[A-Za-z0-9]';