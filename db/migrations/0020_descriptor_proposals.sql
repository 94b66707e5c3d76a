-- A descriptor from outside says where agents read and write: it is a proposal until the studio lead takes it.
create table descriptor_proposal (
  id uuid primary key,
  editor_id text not null,
  editor_version text not null,
  descriptor jsonb not null,
  came_from text not null,
  arrival_id uuid references arrival,
  person_id uuid references person,
  created_at timestamptz not null default now(),
  status text not null default 'open' check (status in ('open', 'taken', 'declined')),
  decided_by uuid references person,
  decided_at timestamptz,
  -- the revision that it became
  revision int,
  check ((status = 'open') = (decided_at is null)),
  check ((status = 'taken') = (revision is not null))
);
create index descriptor_proposal_open on descriptor_proposal (created_at) where status = 'open';
create index descriptor_proposal_arrival on descriptor_proposal (arrival_id);
