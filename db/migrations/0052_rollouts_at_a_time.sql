-- A rollout may be confirmed for a time that is still to come: until then its agents are given nothing of it.
alter table rollout add column starts_at timestamptz;
