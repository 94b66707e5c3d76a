-- Stations of a kind: a room, a floor, what they are for. A standing order is followed by a group whoever comes into it.
alter table station add column groups text[] not null default '{}';
create index station_groups on station using gin (groups);
alter table standing_order add column groups text[] not null default '{}';
