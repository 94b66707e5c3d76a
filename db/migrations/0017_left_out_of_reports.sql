-- What of a station's last report could not be kept: how many files, and the names of the first.
alter table station add column left_out jsonb not null default '{"count": 0, "examples": []}';
