-- Editors that an agent has found on its machine, as "editor@version", whether the station is said to have them or not.
alter table station add column found text[] not null default '{}';
