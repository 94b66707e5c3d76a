-- How the creator of an item is reached, as files that have a place for it say.
alter table item add column contact text not null default '';
