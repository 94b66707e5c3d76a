-- Packs are found by: an item bears those that it came in, and their releases, among its facets. A camera profile for every
-- camera is a class of its own, beside those that are bound to one.
create or replace function item_seen() returns trigger language plpgsql as $$
declare v record;
begin
  select
    id, status, format, coalesce((encoding->>'assumed')::boolean, false) as assumed, words, is_gray(fingerprint) as gray
  into v
  from version
  where item_id = new.id
  order by (variant = '') desc, number desc
  limit 1;
  new.newest_version_id := v.id;
  new.status := coalesce(v.status, 'draft');
  new.format := coalesce(v.format, '');
  new.assumed := coalesce(v.assumed, false);
  new.stale := exists (
    select 1
    from lineage l
      join version s on s.id = l.source_version_id
      join version n on n.item_id = s.item_id and n.number > s.number and n.variant = ''
    where l.version_id = v.id
  );
  new.facets := array[
      'kind:' || new.kind, 'status:' || new.status, 'format:' || new.format, 'origin:' || new.origin,
      'supplier:' || coalesce(nullif(new.supplier, ''), 'own work'),
      'licence:' || coalesce(
        (select name from licence where id = new.licence_id),
        case when new.supplier = '' then 'own work' else 'unknown' end
      ),
      'result:' || coalesce(new.scope->>'result', case when v.gray then 'monochrome' end, 'any'),
      'input:' || coalesce(new.scope->>'input', 'any'),
      'bound:' || case
        when cardinality(new.cameras) > 0 then 'yes'
        when new.kind = 'camera-profile' then 'general'
        else 'no'
      end
    ]
    || array(select 'camera:' || c from unnest(new.cameras) c)
    || array(select 'tag:' || t from unnest(new.tags) t)
    || array(
      select distinct 'pack:' || p.name
      from version pv
        join pack_member m on m.version_id = pv.id
        join pack p on p.id = m.pack_id
      where pv.item_id = new.id
    )
    || array(
      select distinct 'release:' || p.name || ', ' || p.release
      from version pv
        join pack_member m on m.version_id = pv.id
        join pack p on p.id = m.pack_id
      where pv.item_id = new.id and p.release <> ''
    )
    || case when new.stale then array['stale:yes'] else '{}'::text[] end
    || case when new.assumed then array['assumed:yes'] else '{}'::text[] end;
  new.words :=
    setweight(
      to_tsvector('simple', unaccent(new.title || ' ' || new.short_title || ' ' || array_to_string(new.aliases, ' '))), 'A'
    )
    || setweight(to_tsvector('simple', unaccent(array_to_string(new.headings || new.tags, ' '))), 'B')
    || setweight(
      to_tsvector(
        'simple',
        unaccent(
          new.description || ' ' || new.creator || ' ' || new.supplier || ' '
            || array_to_string(new.cameras || new.lenses, ' ') || ' ' || coalesce(v.words, '')
        )
      ),
      'C'
    );
  return new;
end $$;


create index if not exists pack_member_version on pack_member (version_id);

create function pack_members_seen() returns trigger language plpgsql as $$
begin
  update item i
  set title = title
  where id in (select v.item_id from touched t join version v on v.id = t.version_id);
  return null;
end $$;
create trigger pack_members_came
  after insert on pack_member
  referencing new table as touched
  for each statement execute function pack_members_seen();
create trigger pack_members_went
  after delete on pack_member
  referencing old table as touched
  for each statement execute function pack_members_seen();

create function pack_seen() returns trigger language plpgsql as $$
begin
  update item i
  set title = title
  where id in (select v.item_id from pack_member m join version v on v.id = m.version_id where m.pack_id = new.id);
  return null;
end $$;
create trigger pack_seen
  after update of name, release on pack
  for each row execute function pack_seen();

update item
set title = title
where kind = 'camera-profile'
  or id in (select v.item_id from pack_member m join version v on v.id = m.version_id);
