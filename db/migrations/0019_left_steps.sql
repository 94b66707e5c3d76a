-- A person may leave a step out that a station cannot carry out, so that what comes after it is not held up.
alter table rollout_step drop constraint rollout_step_outcome_check;
alter table rollout_step
  add constraint rollout_step_outcome_check check (outcome in ('done', 'conflict', 'failed', 'left'));
-- What a confirmation looks through: which stations hold or wait for an item.
create index rollout_step_waiting on rollout_step (agent_station_id, path) where outcome is null and do_what <> 'none';
