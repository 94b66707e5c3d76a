-- Under which name an item is sorted, where that is not its title ("Alder, standard").
alter table item
  add column sort_title text not null default '',
  add column sorted_by text collate "C" generated always as (lower(coalesce(nullif(sort_title, ''), title))) stored;
create index item_by_name on item (sorted_by, id) where archived_at is null;
drop index item_by_kind, item_by_status, item_by_supplier;
create index item_by_kind on item (kind, sorted_by, id) where archived_at is null;
create index item_by_status on item (status, sorted_by, id) where archived_at is null;
create index item_by_supplier on item (lower(supplier) collate "C", sorted_by, id) where archived_at is null;
create index item_by_position on item (position, sorted_by, id) where archived_at is null;
