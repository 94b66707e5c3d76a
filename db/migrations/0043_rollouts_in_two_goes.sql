-- A rollout goes to one station first, and to the rest once somebody says so; and it can be halted in between.
alter table rollout
  add column first_station_id uuid references station (id) on delete set null,
  -- when the rest was let go
  add column released_at timestamptz,
  add column paused_at timestamptz;
