-- How the list of an editor at a station changed: a row for each time that it gained or lost something, or refused anew.
create table listing_change (
  id bigint generated always as identity primary key,
  station_id uuid not null references station on delete cascade,
  editor_id text not null,
  editor_version text not null,
  told_at timestamptz not null default now(),
  -- so many things were in it before and after
  before integer not null,
  after integer not null,
  -- [{path, title, kind}], of each no more than are told; `more` says how many were left out
  came jsonb not null,
  gone jsonb not null,
  -- [{path, reason}]
  refused jsonb not null,
  more integer not null default 0
);
create index listing_change_station on listing_change (station_id, told_at);
