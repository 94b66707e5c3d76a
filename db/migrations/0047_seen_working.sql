-- An item that is to be seen working: an editor at a station renders a picture with it on, and what comes back is held
-- against our own rendering.
create table sighting (
  id uuid primary key,
  station_id uuid not null references station on delete cascade,
  -- of the placement, and what lay there when it was asked
  path text not null,
  sha256 bytea not null,
  editor_id text not null,
  editor_version text not null,
  version_id uuid not null references version on delete cascade,
  frame_id uuid not null references frame on delete cascade,
  -- what the editor opens, and what it made of it
  picture_sha256 bytea not null references blob,
  result_sha256 bytea references blob,
  -- whom it is asked of: the editor itself, through its agent, or a person who exports the picture there
  by text not null check (by in ('editor', 'person')),
  person_id uuid not null references person,
  asked_at timestamptz not null default now(),
  told_at timestamptz,
  state text not null default 'asked' check (state in ('asked', 'seen', 'differs', 'unclear', 'failed')),
  -- in words, where the editor refused or the picture cannot be compared
  reason text not null default '',
  -- ΔE00 of its rendering against ours, and of both against the picture that it was given
  figures jsonb,
  check ((state = 'asked') = (told_at is null)),
  check ((state in ('seen', 'differs', 'unclear')) = (figures is not null))
);
create unique index sighting_open on sighting (station_id, path) where state = 'asked';
create index sighting_station on sighting (station_id, path, asked_at desc);
create index sighting_version on sighting (version_id);
create index sighting_frame on sighting (frame_id);
