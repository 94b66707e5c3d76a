-- Gives all that is ours in a database to the role of everyday work. What extensions brought stays the administrator's.
do $$
declare
  command text;
begin
  for command in
    select format('alter schema %I owner to :library', nspname)
    from pg_namespace
    where nspname = 'graphile_worker'
    union all
    select format(
        'alter %s %s owner to :library',
        case c.relkind when 'v' then 'view' when 'm' then 'materialized view' when 'S' then 'sequence' else 'table' end,
        c.oid::regclass
      )
    from pg_class c
    where c.relnamespace in (select oid from pg_namespace where nspname in ('public', 'graphile_worker'))
      and c.relkind in ('r', 'p', 'v', 'm', 'S')
      -- a counter of a column goes with its table
      and not exists (select from pg_depend d where d.objid = c.oid and d.deptype in ('a', 'e', 'i') and d.classid = 'pg_class'::regclass)
    union all
    select format('alter routine %s owner to :library', p.oid::regprocedure)
    from pg_proc p
    where p.pronamespace in (select oid from pg_namespace where nspname in ('public', 'graphile_worker'))
      and not exists (select from pg_depend d where d.objid = p.oid and d.deptype = 'e')
    union all
    select format('alter type %s owner to :library', t.oid::regtype)
    from pg_type t
    where t.typnamespace in (select oid from pg_namespace where nspname in ('public', 'graphile_worker'))
      and t.typelem = 0
      and (t.typrelid = 0 or (select relkind from pg_class where oid = t.typrelid) = 'c')
      and not exists (select from pg_depend d where d.objid = t.oid and d.deptype = 'e')
  loop
    execute command;
  end loop;
end
$$;
