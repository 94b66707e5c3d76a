-- What leaves no chroma in any of the colors of its fingerprint gives a monochrome result, whether anybody said so or not.
-- A fingerprint is Lab of 64 colors in hundredths, 16-bit little endian; up to 1.5 of a* or b* nobody sees a color.
create function is_gray(fingerprint bytea) returns boolean language sql immutable strict as $$
  select bool_and(abs(value - case when value > 32767 then 65536 else 0 end) <= 150)
  from (
    select get_byte(fingerprint, at) + 256 * get_byte(fingerprint, at + 1) as value
    from generate_series(0, length(fingerprint) - 2, 2) at
    where at / 2 % 3 <> 0
  ) chroma
$$;

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
      'bound:' || case when cardinality(new.cameras) > 0 then 'yes' else 'no' end
    ]
    || array(select 'camera:' || c from unnest(new.cameras) c)
    || array(select 'tag:' || t from unnest(new.tags) t)
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

drop trigger version_seen on version;
create trigger version_seen
  after insert or update of status, encoding, variant, item_id, words, fingerprint on version
  for each row execute function version_seen();

update item
set title = title
where scope->>'result' is null
  and newest_version_id in (select id from version where is_gray(fingerprint));
