-- What we last asked for in a list that an editor keeps itself (favorites, opening rules): the base from which ours and
-- theirs are told apart.
create table editor_list_base (
  station_id uuid not null references station (id) on delete cascade,
  editor_id text not null,
  editor_version text not null,
  -- of the list, below the station's root
  path text not null,
  asked jsonb not null,
  primary key (station_id, path)
);

-- A step that writes such a list: what the base is to be once it is done, and what it was.
alter table rollout_step add column list jsonb;

-- The studio's opening rules, one list: what editors do with a photo that they open.
create table opening_rules (
  single boolean primary key default true check (single),
  rules jsonb not null default '[]',
  revision integer not null default 0
);
insert into opening_rules default values;
