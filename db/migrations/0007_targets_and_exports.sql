-- Charts with measured values, frames that show one, the profile that a frame came with, and editors' own exports of frames.
create table chart (
  id uuid primary key,
  name text not null check (length(name) between 1 and 120),
  columns integer not null check (columns between 1 and 100),
  rows integer not null check (rows between 1 and 100),
  -- row by row: [{id, lab: [L, a, b]}], relative to D50
  patches jsonb not null,
  -- by how many patches the corner marks stand outside the field
  outside real not null default 0.5 check (outside between 0 and 3),
  source_sha256 bytea not null references blob,
  created_at timestamptz not null default now()
);
create unique index chart_name on chart (lower(name));

alter table frame
  -- the name of the camera profile that the file says it was taken with
  add column profile text not null default '',
  add column chart_id uuid references chart on delete set null,
  -- of the field of patches as shown: top left, top right, bottom right, bottom left, 0…1
  add column chart_corners jsonb;
create index frame_chart on frame (chart_id);

create table frame_export (
  id uuid primary key,
  frame_id uuid not null references frame on delete cascade,
  -- by which editor and with what, in the studio's words; one column of the bench bears one label
  label text not null check (length(label) between 1 and 120),
  sha256 bytea not null references blob,
  width integer not null,
  height integer not null,
  person_id uuid references person on delete set null,
  created_at timestamptz not null default now()
);
create unique index frame_export_label on frame_export (frame_id, lower(label));
