-- A path that somebody wants to see in the file manager of a workstation: the last that was asked for, and what became of it.
create table shown_there (
  station_id uuid primary key references station (id) on delete cascade,
  id uuid not null,
  path text not null,
  asked_at timestamptz not null default clock_timestamp(),
  asked_by uuid references person (id),
  told_at timestamptz,
  -- why it could not be shown; '' where it was
  fault text not null default ''
);
