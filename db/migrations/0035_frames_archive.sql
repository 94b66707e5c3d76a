-- A frame that is not judged on any more: what was said on it stays, and it is offered nowhere.
alter table frame add column archived_at timestamptz;
