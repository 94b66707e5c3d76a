-- Whether the rest of a rollout goes by itself, once all of it is listed at the station that it goes to first.
alter table rollout add column goes_on boolean not null default false;
create index rollout_to_verify on rollout (id) where goes_on and status = 'confirmed' and released_at is null;
