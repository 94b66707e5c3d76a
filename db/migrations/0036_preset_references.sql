-- What a preset refers to by name, bound to the item that is meant: renaming or a new version does not loosen it.
create table preset_reference (
  version_id uuid not null references version on delete cascade,
  kind text not null check (kind in ('look', 'camera-profile')),
  name text not null,
  item_id uuid references item on delete set null,
  bound_by uuid references person,
  primary key (version_id, kind)
);
create index preset_reference_item on preset_reference (item_id);
create index preset_reference_waiting on preset_reference (kind, lower(name)) where item_id is null;
create index item_by_kind_and_title on item (kind, lower(title));
create index version_by_file_title on version (lower(facts ->> 'fileTitle'));

-- The items that a name may mean: by their title before all; else by an alias, or by the title within their file.
create function meant_by(wanted_kind text, wanted_name text) returns uuid[] stable language sql as $$
  with titled as (
    select id from item
    where kind = wanted_kind and lower(title) = lower(wanted_name) and archived_at is null and merged_into is null
  ), otherwise as (
    select id from item
    where kind = wanted_kind and aliases @> array[wanted_name] and archived_at is null and merged_into is null
    union
    select i.id
    from version v join item i on i.newest_version_id = v.id
    where i.kind = wanted_kind and lower(v.facts ->> 'fileTitle') = lower(wanted_name)
      and i.archived_at is null and i.merged_into is null
  )
  select case
    when exists (select from titled) then (select array_agg(id order by id) from titled)
    else coalesce((select array_agg(id order by id) from otherwise), '{}')
  end
$$;

insert into preset_reference (version_id, kind, name)
select v.id, r ->> 'kind', r ->> 'name'
from version v
  join item i on i.id = v.item_id
  cross join lateral jsonb_array_elements(coalesce(v.facts -> 'references', '[]')) r
where i.kind = 'preset' and r ->> 'kind' in ('look', 'camera-profile') and coalesce(r ->> 'name', '') <> ''
on conflict do nothing;

update preset_reference r
set item_id = m.ids[1]
from (select distinct kind, name, meant_by(kind, name) as ids from preset_reference) m
where m.kind = r.kind and m.name = r.name and array_length(m.ids, 1) = 1;
