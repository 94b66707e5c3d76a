-- Words and facets in one index: a search by both meets in the index, instead of reading every row that has the words.
create index item_words_facets on item using gin (words, facets) where archived_at is null;
drop index item_words;
drop index item_facets;
