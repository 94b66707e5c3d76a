-- A link by which a person sets a password: to join, or because the old one is lost. It is used once.
create table person_link (
  token_sha256 bytea primary key,
  person_id uuid not null unique references person on delete cascade,
  made_by uuid references person on delete set null,
  made_at timestamptz not null default now(),
  expires_at timestamptz not null
);
-- Null for somebody who was invited and has set no password yet.
alter table person add column joined_at timestamptz;
update person set joined_at = created_at;
