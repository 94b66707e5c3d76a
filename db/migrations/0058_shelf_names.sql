-- No two shelves that are in use have one name: lists to choose from tell them by it, and so do those who hear the screen.
-- Where there are two by now, the later one is called by a number more.
do $$
begin
  loop
    update shelf s
    set name = s.name || ' (' || named.n || ')'
    from (
      select id, row_number() over (partition by lower(name) order by position, id) as n
      from shelf
      where archived_at is null
    ) named
    where named.id = s.id and named.n > 1;
    exit when not found;
  end loop;
end
$$;

create unique index shelf_name on shelf (lower(name)) where archived_at is null;
