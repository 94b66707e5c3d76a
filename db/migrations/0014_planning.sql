-- A rollout is planned by a job: tables are baked and every file is worked out beside the request, with progress to see.
alter table rollout add column job_id uuid references job;
alter table rollout drop constraint rollout_status_check;
alter table rollout add constraint rollout_status_check
  check (status in ('planning', 'planned', 'confirmed', 'done', 'undoing', 'undone', 'dropped'));
