-- Files that are carried to workstations without a way to the server, and what came back of each.
create table carried (
  id uuid primary key,
  station_id uuid not null references station (id) on delete cascade,
  -- of what waits there; null where nothing did
  rollout_id uuid references rollout (id) on delete set null,
  operations integer not null,
  -- whether it holds a token: a file that is lost on the way leaves nobody with the only one
  enrols boolean not null default false,
  made_at timestamptz not null default clock_timestamp(),
  made_by uuid references person (id),
  -- the number of the answer that was taken last; 0 before the first
  answer integer not null default 0,
  answered_at timestamptz,
  answered_by uuid references person (id)
);

create index carried_newest on carried (station_id, made_at desc);
