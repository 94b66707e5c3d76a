-- Sessions can be listed and ended one by one, and whoever follows along is told at once.
alter table session
  add column id uuid not null unique default gen_random_uuid(),
  add column seen_at timestamptz not null default now();

create function session_ended() returns trigger language plpgsql as $$
begin
  perform pg_notify('session', '');
  return null;
end $$;
create trigger session_ended after delete on session for each statement execute function session_ended();

-- What has come about since a moment is found by the transaction that wrote it.
create index event_xid on event (xid);

-- The agents that have reported with a station's token, the latest first: one that returns after another has come is a second.
alter table station
  add column agent_runs jsonb not null default '[]',
  add column doubled jsonb;
