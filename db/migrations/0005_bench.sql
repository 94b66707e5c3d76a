-- Camera data of frames, frame sets, saved benches, verdicts, house choices, and what a profile needs afterwards.
alter table frame
  add column camera_data bytea references blob,
  add column subject text not null default '',
  add column conversion text not null default '';

create table frame_set (
  id uuid primary key,
  name text not null check (length(name) between 1 and 120),
  created_at timestamptz not null default now()
);
create unique index frame_set_name on frame_set (lower(name));
create table frame_set_member (
  set_id uuid not null references frame_set on delete cascade,
  frame_id uuid not null references frame on delete cascade,
  position integer not null default 0,
  primary key (set_id, frame_id)
);
create index frame_set_member_frame on frame_set_member (frame_id);

create table bench (
  id uuid primary key,
  name text not null check (length(name) between 1 and 120),
  -- the address that the bench is opened by
  state text not null check (length(state) <= 8000),
  shared boolean not null default true,
  person_id uuid not null references person on delete cascade,
  created_at timestamptz not null default now(),
  touched_at timestamptz not null default now()
);
create index bench_person on bench (person_id);

create table verdict (
  id bigint generated always as identity primary key,
  item_id uuid not null references item on delete cascade,
  version_id uuid not null references version on delete cascade,
  frame_id uuid references frame on delete set null,
  camera text not null default '',
  light text not null default '',
  strength integer not null default 100 check (strength between 0 and 400),
  -- the rungs of a camera profile that acted, and whether a step beside it was on
  stages text[],
  beside text not null default '',
  words text not null default '' check (length(words) <= 2000),
  chosen boolean not null,
  display jsonb not null default '{}',
  provisional boolean not null,
  person_id uuid references person on delete set null,
  at timestamptz not null default now()
);
create index verdict_item on verdict (item_id, at desc);
create index verdict_version on verdict (version_id);
create index verdict_frame on verdict (frame_id);

create table house_choice (
  id bigint generated always as identity primary key,
  client text not null default '',
  camera text not null default '',
  light text not null default '',
  file_kind text not null default '' check (file_kind in ('', 'rendered', 'camera data')),
  profile_version_id uuid references version on delete cascade,
  look_version_id uuid references version on delete cascade,
  strength integer not null default 100 check (strength between 0 and 400),
  person_id uuid references person on delete set null,
  at timestamptz not null default now(),
  check (profile_version_id is not null or look_version_id is not null)
);
create unique index house_choice_case on house_choice (lower(client), lower(camera), lower(light), file_kind);
create index house_choice_profile on house_choice (profile_version_id);
create index house_choice_look on house_choice (look_version_id);

alter table item add column compensation jsonb;
