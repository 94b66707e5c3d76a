-- Intakes and packs, shelves, items, versions and their lineage, ribbons, frames.
create table shelf (
  id uuid primary key,
  name text not null check (length(name) between 1 and 120),
  note text not null default '',
  position integer not null default 0,
  archived_at timestamptz
);

create table intake (
  id uuid primary key,
  name text not null,
  upload_id uuid references upload,
  sha256 bytea not null references blob,
  status text not null default 'reading' check (status in ('reading', 'ready', 'accepted', 'failed', 'discarded')),
  error jsonb,
  job_id uuid references job,
  person_id uuid references person,
  created_at timestamptz not null default now(),
  settled_at timestamptz
);

create table item (
  id uuid primary key,
  kind text not null check (kind in ('look', 'preset')),
  title text not null check (length(title) between 1 and 200),
  headings text[] not null default '{}',
  position integer not null default 0,
  description text not null default '',
  creator text not null default '',
  rights text not null default '',
  supplier text not null default '',
  tags text[] not null default '{}',
  scope jsonb not null default '{}',
  shelf_id uuid not null references shelf,
  shelf_order integer not null default 0,
  strength_most integer not null default 150 check (strength_most between 1 and 400),
  revision integer not null default 1,
  created_at timestamptz not null default now(),
  archived_at timestamptz,
  search tsvector generated always as (to_tsvector('simple', title || ' ' || description || ' ' || creator || ' ' || supplier)) stored
);
create index item_shelf on item (shelf_id, shelf_order) where archived_at is null;
create index item_search on item using gin (search);
create index item_title_trgm on item using gin (title gin_trgm_ops);

create table version (
  id uuid primary key,
  item_id uuid not null references item,
  number integer not null,
  sha256 bytea not null references blob,
  file_name text not null,
  format text not null,
  facts jsonb not null default '{}',
  selvedge jsonb,
  encoding jsonb,
  encoding_confirmed_by uuid references person,
  encoding_confirmed_at timestamptz,
  status text not null default 'draft' check (status in ('draft', 'approved', 'retired')),
  notes text not null default '',
  author_id uuid references person,
  approved_by uuid references person,
  created_at timestamptz not null default now(),
  unique (item_id, number)
);
create index version_sha on version (sha256);

create table lineage (
  version_id uuid not null references version on delete cascade,
  source_version_id uuid not null references version,
  recipe jsonb not null,
  primary key (version_id, source_version_id)
);
create index lineage_source on lineage (source_version_id);

create table pack (
  id uuid primary key,
  name text not null,
  intake_id uuid not null unique references intake,
  supplier text not null default '',
  created_at timestamptz not null default now()
);
create table pack_member (
  pack_id uuid not null references pack on delete cascade,
  path text not null,
  version_id uuid not null references version,
  primary key (pack_id, path)
);
create index pack_member_version on pack_member (version_id);

create table intake_entry (
  id bigint generated always as identity primary key,
  intake_id uuid not null references intake on delete cascade,
  path text not null,
  size bigint not null,
  sha256 bytea references blob,
  outcome text not null check (outcome in ('new', 'duplicate', 'document', 'unknown', 'refused', 'ignored')),
  kind text not null default '',
  format text not null default '',
  title text not null default '',
  headings text[] not null default '{}',
  needs jsonb not null default '[]',
  facts jsonb not null default '{}',
  selvedge jsonb,
  note text not null default '',
  problem jsonb,
  held_version_id uuid references version,
  version_id uuid references version,
  unique (intake_id, path)
);

-- A ribbon of a person, or of the house where person_id is null.
create table ribbon (
  id bigint generated always as identity primary key,
  item_id uuid not null references item on delete cascade,
  person_id uuid references person,
  made_by uuid not null references person,
  made_at timestamptz not null default now()
);
create unique index ribbon_person on ribbon (item_id, person_id) where person_id is not null;
create unique index ribbon_house on ribbon (item_id) where person_id is null;

create table frame (
  id uuid primary key,
  name text not null unique,
  light text not null default '',
  sha256 bytea not null references blob,
  width integer not null,
  height integer not null,
  position integer not null default 0,
  created_at timestamptz not null default now()
);
