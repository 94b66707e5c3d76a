-- Licences, sources, every kind of item, arrivals of many files with proposals, self-filling shelves, search and facets.
create extension if not exists unaccent;

create table licence (
  id uuid primary key,
  name text not null check (length(name) between 1 and 120),
  owner text not null default '',
  terms text not null default '',
  may_convert text not null default 'unknown' check (may_convert in ('yes', 'no', 'unknown')),
  may_spread text not null default 'unknown' check (may_spread in ('yes', 'no', 'unknown')),
  seats integer check (seats > 0),
  seats_by text not null default 'person' check (seats_by in ('person', 'device', 'site')),
  ends_on date,
  at_end text not null default 'ask' check (at_end in ('remove', 'keep results', 'ask')),
  created_at timestamptz not null default now()
);
create unique index licence_name on licence (lower(name));

alter table shelf add column query jsonb;
create table shelf_away (
  shelf_id uuid not null references shelf on delete cascade,
  person_id uuid not null references person on delete cascade,
  primary key (shelf_id, person_id)
);

alter table item drop constraint item_kind_check;
alter table item add constraint item_kind_check check (kind in ('look', 'preset', 'camera-profile', 'icc-profile', 'lens-database', 'add-on'));
drop index item_search;
alter table item drop column search;
alter table item
  add column licence_id uuid references licence,
  add column origin text not null default 'house' check (origin in ('measured', 'maker-like', 'house', 'bought')),
  add column cameras text[] not null default '{}',
  add column lenses text[] not null default '{}',
  add column source jsonb not null default '{}',
  add column web_statement text not null default '',
  add column notes text not null default '',
  add column short_title text not null default '',
  add column aliases text[] not null default '{}',
  add column strength_least integer not null default 0 check (strength_least between 0 and 400),
  add column strength_usual integer not null default 100 check (strength_usual between 0 and 400),
  add column merged_into uuid references item,
  -- kept true by triggers, so that search and facets read one table
  add column newest_version_id uuid,
  add column status text not null default 'draft',
  add column format text not null default '',
  add column assumed boolean not null default false,
  add column stale boolean not null default false,
  add column facets text[] not null default '{}',
  add column words tsvector,
  add column touched_at timestamptz not null default now();

alter table version
  add column variant text not null default '',
  add column internal_id text not null default '',
  add column content_sha256 bytea,
  -- Lab of 64 fixed colors as rendered, in hundredths, 16-bit little endian: what duplicates by effect are told from
  add column fingerprint bytea check (length(fingerprint) = 384),
  add column words text not null default '';
create index version_content on version (content_sha256);
create index version_internal on version (internal_id) where internal_id <> '';
create index version_newest on version (item_id, (variant = '') desc, number desc);

-- What a search and a facet see of an item.
create function item_seen() returns trigger language plpgsql as $$
declare v record;
begin
  select id, status, format, coalesce((encoding->>'assumed')::boolean, false) as assumed, words into v
    from version where item_id = new.id order by (variant = '') desc, number desc limit 1;
  new.newest_version_id := v.id;
  new.status := coalesce(v.status, 'draft');
  new.format := coalesce(v.format, '');
  new.assumed := coalesce(v.assumed, false);
  new.stale := exists (select 1 from lineage l join version s on s.id = l.source_version_id join version n on n.item_id = s.item_id and n.number > s.number and n.variant = '' where l.version_id = v.id);
  new.facets := array['kind:' || new.kind, 'status:' || new.status, 'format:' || new.format, 'origin:' || new.origin,
      'supplier:' || coalesce(nullif(new.supplier, ''), 'own work'),
      'licence:' || coalesce((select name from licence where id = new.licence_id), case when new.supplier = '' then 'own work' else 'unknown' end),
      'result:' || coalesce(new.scope->>'result', 'any'), 'input:' || coalesce(new.scope->>'input', 'any'),
      'bound:' || case when cardinality(new.cameras) > 0 then 'yes' else 'no' end]
    || array(select 'camera:' || c from unnest(new.cameras) c) || array(select 'tag:' || t from unnest(new.tags) t)
    || case when new.stale then array['stale:yes'] else '{}'::text[] end || case when new.assumed then array['assumed:yes'] else '{}'::text[] end;
  new.words := setweight(to_tsvector('simple', unaccent(new.title || ' ' || new.short_title || ' ' || array_to_string(new.aliases, ' '))), 'A')
    || setweight(to_tsvector('simple', unaccent(array_to_string(new.headings || new.tags, ' '))), 'B')
    || setweight(to_tsvector('simple', unaccent(new.description || ' ' || new.creator || ' ' || new.supplier || ' ' || array_to_string(new.cameras || new.lenses, ' ') || ' ' || coalesce(v.words, ''))), 'C');
  return new;
end $$;
create trigger item_seen before insert or update on item for each row execute function item_seen();

create function version_seen() returns trigger language plpgsql as $$
begin
  update item set touched_at = now() where id = new.item_id;
  if tg_op = 'UPDATE' and old.item_id <> new.item_id then update item set touched_at = now() where id = old.item_id; end if;
  if tg_op = 'INSERT' then
    update item set touched_at = now() where id in (select v.item_id from lineage l join version s on s.id = l.source_version_id join version v on v.id = l.version_id where s.item_id = new.item_id);
  end if;
  return null;
end $$;
create trigger version_seen after insert or update of status, encoding, variant, item_id, words on version for each row execute function version_seen();
create function version_gone() returns trigger language plpgsql as $$
begin
  update item set touched_at = now() where id = old.item_id or id in (select v.item_id from lineage l join version s on s.id = l.source_version_id join version v on v.id = l.version_id where s.item_id = old.item_id);
  return null;
end $$;
create trigger version_gone after delete on version for each row execute function version_gone();
create function lineage_seen() returns trigger language plpgsql as $$ begin update item set touched_at = now() where id = (select item_id from version where id = new.version_id); return null; end $$;
create trigger lineage_seen after insert on lineage for each row execute function lineage_seen();

-- How many items that are not archived bear a facet: maintained, so that no page counts the whole library.
create table facet_count (facet text primary key, n integer not null);
create function facet_counted() returns trigger language plpgsql as $$
begin
  insert into facet_count as f (facet, n)
    select facet, sum(d)::int from (
      select unnest(facets) as facet, 1 as d from after_rows where archived_at is null
      union all select unnest(facets), -1 from before_rows where archived_at is null) x
    group by facet having sum(d) <> 0 order by facet
  on conflict (facet) do update set n = f.n + excluded.n;
  return null;
end $$;
create function facet_counted_new() returns trigger language plpgsql as $$
begin
  insert into facet_count as f (facet, n) select facet, count(*)::int from (select unnest(facets) as facet from after_rows where archived_at is null) x group by facet order by facet
  on conflict (facet) do update set n = f.n + excluded.n;
  return null;
end $$;
create function facet_counted_gone() returns trigger language plpgsql as $$
begin
  insert into facet_count as f (facet, n) select facet, -count(*)::int from (select unnest(facets) as facet from before_rows where archived_at is null) x group by facet order by facet
  on conflict (facet) do update set n = f.n + excluded.n;
  return null;
end $$;
create trigger facet_counted after update on item referencing old table as before_rows new table as after_rows for each statement execute function facet_counted();
create trigger facet_counted_new after insert on item referencing new table as after_rows for each statement execute function facet_counted_new();
create trigger facet_counted_gone after delete on item referencing old table as before_rows for each statement execute function facet_counted_gone();

update item set touched_at = now();
create index item_words on item using gin (words) where archived_at is null;
create index item_facets on item using gin (facets) where archived_at is null;
-- a page in the order of a column is read from an index, however many match
create index item_by_title on item (lower(title) collate "C", id) where archived_at is null;
create index item_by_kind on item (kind, lower(title) collate "C", id) where archived_at is null;
create index item_by_status on item (status, lower(title) collate "C", id) where archived_at is null;
create index item_by_supplier on item (lower(supplier) collate "C", lower(title) collate "C", id) where archived_at is null;
create index item_by_made on item (created_at, id) where archived_at is null;
create index item_by_touched on item (touched_at, id) where archived_at is null;
create index item_licence on item (licence_id) where licence_id is not null;

-- When a person last opened or rolled out an item: the recently used.
create table item_use (
  person_id uuid not null references person on delete cascade,
  item_id uuid not null references item on delete cascade,
  used_at timestamptz not null default now(),
  primary key (person_id, item_id)
);
create index item_use_recent on item_use (person_id, used_at desc);

-- Pairs of items with the same effect that are meant to be two.
create table meant_twice (
  item_a uuid not null references item on delete cascade,
  item_b uuid not null references item on delete cascade,
  person_id uuid references person,
  at timestamptz not null default now(),
  primary key (item_a, item_b),
  check (item_a < item_b)
);

alter table pack add column release text not null default '', add column source jsonb not null default '{}', add column licence_id uuid references licence, add column previous_id uuid references pack;

alter table intake drop constraint intake_status_check;
alter table intake add constraint intake_status_check check (status in ('arriving', 'reading', 'ready', 'accepted', 'failed', 'discarded'));
alter table intake alter column sha256 drop not null;
alter table intake add column station_id uuid references station, add column source jsonb not null default '{}', add column licence_id uuid references licence, add column previous_pack_id uuid references pack;

-- The files of an arrival, each with its path in the folder that was dropped or at the station where it lies.
create table intake_file (
  intake_id uuid not null references intake on delete cascade,
  n integer not null,
  path text not null,
  size bigint not null,
  upload_id uuid references upload,
  sha256 bytea references blob,
  primary key (intake_id, n)
);
create index intake_file_upload on intake_file (upload_id);

alter table intake_entry drop constraint intake_entry_outcome_check;
alter table intake_entry add constraint intake_entry_outcome_check check (outcome in ('new', 'version', 'variant', 'duplicate', 'frame', 'descriptor', 'document', 'unknown', 'refused', 'ignored'));
alter table intake_entry
  -- what was proposed, which stays, and what a person made of it (outcome)
  add column proposal text not null default '',
  add column corrected boolean not null default false,
  add column target_item_id uuid references item,
  add column target_entry_id bigint references intake_entry on delete cascade,
  add column likeness jsonb,
  add column caution text not null default '',
  add column confidence real not null default 1,
  add column evidence jsonb not null default '[]',
  add column mismatches jsonb not null default '[]',
  add column internal_id text not null default '',
  add column content_sha256 bytea,
  add column fingerprint bytea,
  add column frame_id uuid references frame;
-- what is deleted is looked for from here
create index intake_entry_target on intake_entry (target_entry_id) where target_entry_id is not null;
create index intake_entry_item on intake_entry (target_item_id) where target_item_id is not null;
create index intake_entry_version on intake_entry (version_id) where version_id is not null;
create index intake_entry_held on intake_entry (held_version_id) where held_version_id is not null;
create index intake_entry_content on intake_entry (intake_id, content_sha256);

-- Frames of the studio's own: what their files say, the file as it came, and who brought them.
alter table frame add column source_sha256 bytea references blob, add column file_name text not null default '', add column camera text not null default '', add column serial text not null default '', add column lens text not null default '', add column focal real, add column aperture real, add column iso integer, add column taken_at text not null default '', add column file_kind text not null default 'rendered' check (file_kind in ('camera data', 'rendered'));
alter table frame drop constraint frame_name_key;

-- Descriptors are versioned: each that was brought in stays, the newest counts.
create table editor_revision (
  editor_id text not null,
  editor_version text not null,
  n integer not null,
  descriptor jsonb not null,
  person_id uuid references person,
  created_at timestamptz not null default now(),
  primary key (editor_id, editor_version, n)
);

-- The order of a person's ribbons, and of the house's: the short everyday list.
alter table ribbon add column position integer not null default 0;

create index event_recent on event (at desc);
create index event_person on event (person_id, id desc);
create index station_inventory_sha on inventory (sha256);
