-- The studio's own cameras and lenses, and what was asked of suppliers and makers of editors for them.
create table camera (
  id uuid primary key,
  maker text not null default '',
  model text not null check (length(model) between 1 and 120),
  -- every other name that it bears: in files, regional, in an editor
  names text[] not null default '{}',
  -- what was done to the body; its files keep the plain one's name
  conversion text not null default '',
  serials text[] not null default '{}',
  mount text not null default '',
  sensor_width double precision check (sensor_width between 1 and 200),
  sensor_height double precision check (sensor_height between 1 and 200),
  created_at timestamptz not null default now()
);
create unique index camera_body on camera (lower(maker), lower(model), lower(conversion));

create table lens (
  id uuid primary key,
  maker text not null default '',
  model text not null check (length(model) between 1 and 120),
  names text[] not null default '{}',
  mount text not null default '',
  created_at timestamptz not null default now()
);
create unique index lens_model on lens (lower(maker), lower(model), lower(mount));

create table gear_request (
  id uuid primary key,
  -- of a camera or a lens of the list, or of one that is only named
  camera_id uuid references camera on delete set null,
  lens_id uuid references lens on delete set null,
  about text not null check (length(about) between 1 and 160),
  wanted text not null check (wanted in ('camera profile', 'lens calibration', 'support in an editor')),
  asked_of text not null default '',
  note text not null default '',
  state text not null default 'noted' check (state in ('noted', 'sent', 'promised', 'fulfilled', 'declined')),
  state_at timestamptz not null default now(),
  person_id uuid not null references person,
  created_at timestamptz not null default now()
);
create index gear_request_state on gear_request (state, created_at);

-- Whether anything of an item is approved, whatever its newest version is.
create index version_approved on version (item_id) where status = 'approved';
