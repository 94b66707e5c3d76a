-- What we had put where before: a row for each time that something of ours lay at a path and does no longer.
create table placement_past (
  id bigint generated always as identity primary key,
  station_id uuid not null references station on delete cascade,
  path text not null,
  editor_id text not null,
  editor_version text not null,
  -- it may be gone by now: its title and number are kept as they were
  version_id uuid references version on delete set null,
  title text,
  number integer,
  sha256 bytea not null,
  rollout_id uuid references rollout on delete set null,
  placed_at timestamptz not null,
  gone_at timestamptz not null default now()
);
create index placement_past_station on placement_past (station_id, gone_at);
create index placement_past_version on placement_past (version_id);
create index placement_past_rollout on placement_past (rollout_id);

create function placement_passes() returns trigger language plpgsql as $$
begin
  -- a station that goes takes its past with it
  if exists (select 1 from station where id = old.station_id) then
    insert into placement_past (
      station_id, path, editor_id, editor_version, version_id, title, number, sha256, rollout_id, placed_at
    )
    select
      old.station_id, old.path, old.editor_id, old.editor_version, old.version_id, i.title, v.number, old.sha256,
      old.rollout_id, old.placed_at
    from (select) as it
      left join version v on v.id = old.version_id
      left join item i on i.id = v.item_id;
  end if;
  return null;
end $$;
create trigger placement_replaced after update on placement for each row
  when ((old.version_id, old.sha256, old.rollout_id) is distinct from (new.version_id, new.sha256, new.rollout_id))
  execute function placement_passes();
create trigger placement_gone after delete on placement for each row execute function placement_passes();
