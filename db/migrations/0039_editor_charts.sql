-- Charts that go through an editor whose mathematics nobody knows, and what came back.
create table editor_chart (
  id uuid primary key,
  -- what the chart itself says that it is
  number integer not null unique check (number between 1 and 16777215),
  size smallint not null check (size between 2 and 65),
  -- plain: a Hald image, which carries no number and no checks
  kind text not null check (kind in ('8 bits', '16 bits', 'camera data', 'plain')),
  file text not null check (file in ('png', 'tiff', 'dng')),
  -- through which editor, with its version, as people say it
  editor text not null,
  -- what is switched on there: in words, and the preset where the library holds it
  what text not null,
  preset_version_id uuid references version (id) on delete restrict,
  -- whose camera the data is of
  profile_version_id uuid references version (id) on delete restrict,
  person_id uuid not null references person (id),
  created_at timestamptz not null default now(),
  check ((file = 'dng') = (kind = 'camera data')),
  check ((kind = 'camera data') = (profile_version_id is not null))
);
create index editor_chart_by_time on editor_chart (created_at desc);
create index editor_chart_by_preset on editor_chart (preset_version_id);
create index editor_chart_by_profile on editor_chart (profile_version_id);

create table chart_reading (
  id uuid primary key,
  chart_id uuid not null references editor_chart (id) on delete restrict,
  -- of the picture that came back, which is not kept
  picture_sha256 bytea not null,
  file_name text not null,
  -- the table that was read, as .cube
  sha256 bytea not null references blob (sha256),
  -- noise, spread, what was repaired, warnings, the table's own error, agreement with the preset
  figures jsonb not null,
  person_id uuid not null references person (id),
  read_at timestamptz not null default now(),
  unique (chart_id, picture_sha256)
);
