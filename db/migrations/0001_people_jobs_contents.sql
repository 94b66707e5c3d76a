-- People, their sessions, the log of events, jobs, and contents by hash.
create extension if not exists pg_trgm;
create extension if not exists citext;

create table person (
  id uuid primary key,
  name text not null check (length(name) between 1 and 120),
  email citext not null unique,
  role text not null check (role in ('librarian', 'retoucher', 'lead')),
  password_hash text not null,
  active boolean not null default true,
  created_at timestamptz not null default now()
);

create table session (
  token_sha256 bytea primary key,
  person_id uuid not null references person on delete cascade,
  created_at timestamptz not null default now(),
  expires_at timestamptz not null,
  user_agent text not null default ''
);
create index session_person on session (person_id);

-- Failed sign-ins, for the rate limit; swept when old.
create table sign_in_failure (
  id bigint generated always as identity primary key,
  subject text not null,
  at timestamptz not null default now()
);
create index sign_in_failure_subject on sign_in_failure (subject, at);

-- Who changed what. A reader takes only rows below its snapshot's xmin, so that late commits are not missed.
create table event (
  id bigint generated always as identity primary key,
  xid xid8 not null default pg_current_xact_id(),
  at timestamptz not null default now(),
  person_id uuid references person,
  actor text not null default '',
  subject text not null,
  subject_id text not null,
  action text not null,
  before jsonb,
  after jsonb
);
create index event_subject on event (subject, subject_id, id desc);

create function event_wakes() returns trigger language plpgsql as $$
begin
  perform pg_notify('event', '');
  return null;
end $$;
create trigger event_wakes after insert on event for each statement execute function event_wakes();

create table job (
  id uuid primary key,
  kind text not null,
  title text not null,
  status text not null default 'queued' check (status in ('queued', 'running', 'done', 'failed', 'cancelled')),
  progress real not null default 0,
  note text not null default '',
  payload jsonb not null,
  result jsonb,
  error jsonb,
  cancel_requested boolean not null default false,
  person_id uuid references person,
  created_at timestamptz not null default now(),
  started_at timestamptz,
  heartbeat_at timestamptz,
  finished_at timestamptz
);
create index job_recent on job (created_at desc);

-- Contents, written once, addressed by their SHA-256, read by range.
create table blob (
  sha256 bytea primary key check (length(sha256) = 32),
  size bigint not null,
  created_at timestamptz not null default now()
);
create table blob_chunk (
  sha256 bytea not null references blob on delete cascade,
  n integer not null,
  data bytea not null check (length(data) <= 1048576),
  primary key (sha256, n)
);
alter table blob_chunk alter column data set storage external;

-- Uploads arrive in parts and outlive a reload.
create table upload (
  id uuid primary key,
  person_id uuid not null references person,
  name text not null,
  size bigint not null check (size >= 0),
  received bigint not null default 0,
  sha256 bytea references blob,
  created_at timestamptz not null default now()
);
create table upload_chunk (
  upload_id uuid not null references upload on delete cascade,
  n integer not null,
  data bytea not null check (length(data) <= 1048576),
  primary key (upload_id, n)
);
alter table upload_chunk alter column data set storage external;
