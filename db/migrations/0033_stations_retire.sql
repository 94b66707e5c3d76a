-- A station that is not used any more stays in the history, and in nothing else.
alter table station add column retired_at timestamptz;
