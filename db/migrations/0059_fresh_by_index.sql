-- What is new to a person is counted for every look at the shelves: from the index alone, without reading each version
drop index version_made;
create index version_made on version (created_at) include (id, author_id);
