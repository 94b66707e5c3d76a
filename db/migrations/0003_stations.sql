-- Editors by descriptor, stations and what they report, renditions, rollouts and their steps.
create table editor (
  id text not null,
  version text not null,
  descriptor jsonb not null,
  created_at timestamptz not null default now(),
  primary key (id, version)
);

create table station (
  id uuid primary key,
  name text not null unique check (length(name) between 1 and 120),
  kind text not null default 'workstation' check (kind in ('workstation', 'card')),
  system text not null check (system in ('macos', 'windows', 'linux')),
  person text not null default '',
  -- the workstation in whose reader a card sits; its agent reads and writes the card
  host_id uuid references station,
  enrol_code_sha256 bytea,
  enrol_expires_at timestamptz,
  token_sha256 bytea unique,
  agent_version text not null default '',
  last_report_at timestamptz,
  digest text not null default '',
  position integer not null default 0,
  created_at timestamptz not null default now()
);

create table station_editor (
  station_id uuid not null references station on delete cascade,
  editor_id text not null,
  editor_version text not null,
  running boolean not null default false,
  -- what the editor itself lists and refuses, and when it wrote that
  listing jsonb,
  listed_at timestamptz,
  primary key (station_id, editor_id, editor_version),
  foreign key (editor_id, editor_version) references editor
);

create table inventory (
  id bigint generated always as identity primary key,
  station_id uuid not null references station on delete cascade,
  path text not null,
  size bigint not null,
  sha256 bytea not null,
  unique (station_id, path)
);

-- What an editor's own index of files says at a station; entries are merged, never the file written over.
create table station_index (
  station_id uuid not null references station on delete cascade,
  path text not null,
  text text not null,
  primary key (station_id, path)
);

-- The bytes that a version becomes for an editor; immutable.
create table rendition (
  id uuid primary key,
  version_id uuid not null references version,
  editor_id text not null,
  editor_version text not null,
  recipe_sha256 bytea not null,
  code_version integer not null,
  sha256 bytea not null references blob,
  size bigint not null,
  points integer,
  residual jsonb,
  created_at timestamptz not null default now(),
  unique (version_id, editor_id, editor_version, recipe_sha256, code_version)
);

create table rollout (
  id uuid primary key,
  title text not null,
  status text not null default 'planned' check (status in ('planned', 'confirmed', 'done', 'undoing', 'undone', 'dropped')),
  undoes uuid references rollout,
  person_id uuid not null references person,
  approved_by uuid references person,
  created_at timestamptz not null default now(),
  confirmed_at timestamptz,
  finished_at timestamptz
);

create table rollout_step (
  id bigint generated always as identity primary key,
  rollout_id uuid not null references rollout on delete cascade,
  -- whose place it is, and whose agent carries it out
  station_id uuid not null references station,
  agent_station_id uuid not null references station,
  editor_id text not null,
  editor_version text not null,
  place text not null,
  version_id uuid references version,
  rendition_id uuid references rendition,
  n integer not null,
  do_what text not null check (do_what in ('put', 'remove', 'none')),
  path text not null,
  sha256 bytea,
  size bigint not null default 0,
  expect bytea,
  decision text not null,
  note text not null default '',
  outcome text check (outcome in ('done', 'conflict', 'failed')),
  message text not null default '',
  before bytea,
  -- what we had put there before, so that undoing brings the base back too
  prior jsonb,
  -- for an editor's index of files: the lines that this step adds
  lines text[],
  settled_at timestamptz,
  unique (rollout_id, agent_station_id, n)
);
create index rollout_step_agent on rollout_step (agent_station_id, rollout_id) where outcome is null;
create index rollout_step_version on rollout_step (version_id);

-- What we put where last: the base of the three-way view, one row a path that is ours.
create table placement (
  id bigint generated always as identity primary key,
  station_id uuid not null references station on delete cascade,
  path text not null,
  editor_id text not null,
  editor_version text not null,
  place text not null,
  version_id uuid references version,
  rendition_id uuid references rendition,
  sha256 bytea not null,
  rollout_id uuid references rollout,
  placed_at timestamptz not null default now(),
  unique (station_id, path)
);
create index placement_version on placement (version_id);
