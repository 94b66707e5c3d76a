-- One word for what comes in: an arrival. Intake is the screen where arrivals are settled; a pack is what of them is kept as a unit.
alter table intake rename to arrival;
alter table intake_file rename to arrival_file;
alter table intake_entry rename to arrival_entry;
alter table arrival_file rename column intake_id to arrival_id;
alter table arrival_entry rename column intake_id to arrival_id;
alter table pack rename column intake_id to arrival_id;

-- Names of constraints and indexes follow, so that what the database says bears the word too.
do $$
declare
  named record;
begin
  for named in
    select c.conname as name, c.conrelid::regclass as owner
    from pg_constraint c
    where c.connamespace = 'public'::regnamespace and c.conname like '%intake%'
  loop
    execute format('alter table %s rename constraint %I to %I', named.owner, named.name, replace(named.name, 'intake', 'arrival'));
  end loop;
  for named in
    select c.relname as name
    from pg_class c
    where c.relnamespace = 'public'::regnamespace and c.relkind in ('i', 'S') and c.relname like '%intake%'
  loop
    execute format('alter %s %I rename to %I',
      case when (select relkind from pg_class where relname = named.name and relnamespace = 'public'::regnamespace) = 'S' then 'sequence' else 'index' end,
      named.name, replace(named.name, 'intake', 'arrival'));
  end loop;
end $$;

update event set subject = 'arrival' where subject = 'intake';
update job set kind = 'arrival' where kind = 'intake';
