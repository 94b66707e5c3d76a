-- Files at stations that are not ours and of which a person wants to hear no more, as they were then: one that is changed
-- is told of again.
create table ignored_there (
  -- whose agent has the file
  station_id uuid not null references station (id) on delete cascade,
  path text not null,
  sha256 bytea not null,
  person_id uuid references person (id),
  at timestamptz not null default clock_timestamp(),
  primary key (station_id, path)
);
