-- Files that an agent reports in parts: they lie here until the report that they belong to is there.
create table inventory_part (
  station_id uuid not null references station on delete cascade,
  digest text not null,
  part int not null check (part >= 0),
  files jsonb not null,
  left_out jsonb not null,
  came_at timestamptz not null default now(),
  primary key (station_id, digest, part)
);
