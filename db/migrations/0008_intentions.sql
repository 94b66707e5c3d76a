-- What an item is meant to do, in words, and whether it was seen to do so.
alter table item add column intention text not null default '' check (length(intention) <= 1000);
alter table verdict add column as_meant boolean;
