-- Word search that forgives typing errors; ships with PostgreSQL, trusted, so that the owner may create it.
create extension if not exists pg_trgm;
