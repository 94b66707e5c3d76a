-- When a person last said to have seen what is new; what others brought in since is marked for that person.
alter table person add column looked_at timestamptz not null default now();
create index version_made on version (created_at);
