-- Conversions of many: what shall become of each source, worked out first, and then carried through one by one.
create table conversion (
  id uuid primary key,
  title text not null,
  -- how what is made is called, as a pattern; and where it stands, beside its source where that is not said
  naming text not null default '{title}',
  shelf_id uuid references shelf (id) on delete set null,
  -- what becomes of one whose name is borne already: not said yet, a number behind it, or left out
  clash text check (clash in ('number', 'leave')),
  recipe jsonb not null,
  -- rows have recipes of their own, those by which they were made before
  again boolean not null default false,
  status text not null check (status in ('planning', 'planned', 'running', 'paused', 'done', 'stopped')),
  job_id uuid references job (id),
  person_id uuid not null references person (id),
  created_at timestamptz not null default now(),
  finished_at timestamptz
);
create index conversion_by_time on conversion (created_at desc);

create table conversion_row (
  id bigint generated always as identity primary key,
  conversion_id uuid not null references conversion (id) on delete cascade,
  place integer not null,
  source_version_id uuid not null references version (id) on delete cascade,
  -- its own, where it differs from the conversion's
  recipe jsonb,
  -- what was made before, of which this becomes a new version
  again_version_id uuid references version (id) on delete cascade,
  title text,
  excluded boolean not null default false,
  status text not null default 'unplanned' check (status in ('unplanned', 'planned', 'refused', 'made', 'failed')),
  outcome jsonb,
  problem jsonb,
  made_version_id uuid references version (id) on delete set null,
  unique (conversion_id, place)
);
create index conversion_row_by_source on conversion_row (source_version_id);
create index conversion_row_by_made on conversion_row (made_version_id);
create index conversion_row_by_again on conversion_row (again_version_id);

-- How far a table may be off before a lead has to say so, in ΔE00.
alter table studio
  add column proof_mean real not null default 1,
  add column proof_max real not null default 12;
