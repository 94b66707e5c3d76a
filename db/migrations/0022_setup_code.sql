-- The code that protects the welcome page of an empty studio: with the studio, so that every machine that serves it knows it.
alter table studio add column setup_code_sha256 bytea;
