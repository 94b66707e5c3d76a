-- What pages of the library look up for each item: whether it has other forms, and whether a version is an item's newest.
create index version_forms on version (item_id) where variant <> '';
create index item_newest on item (newest_version_id) where archived_at is null;
