-- What was taken away at a station is looked for in what its editor still lists.
create index rollout_step_taken_away on rollout_step (station_id, settled_at)
where do_what = 'remove' and outcome = 'done';
