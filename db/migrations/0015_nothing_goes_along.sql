-- What people found, marked and chose never goes along with what it is about: whoever takes that away has to say so first.
do $$
declare
  link record;
begin
  for link in
    select *
    from (
      values
        ('verdict', 'item_id', 'item'),
        ('verdict', 'version_id', 'version'),
        ('verdict', 'frame_id', 'frame'),
        ('house_choice', 'profile_version_id', 'version'),
        ('house_choice', 'look_version_id', 'version'),
        ('ribbon', 'item_id', 'item'),
        ('meant_twice', 'item_a', 'item'),
        ('meant_twice', 'item_b', 'item'),
        ('frame_set_member', 'frame_id', 'frame'),
        ('frame_export', 'frame_id', 'frame')
    ) as t (owner, part, target)
  loop
    execute format('alter table %I drop constraint %I', link.owner, link.owner || '_' || link.part || '_fkey');
    execute format(
      'alter table %I add constraint %I foreign key (%I) references %I',
      link.owner, link.owner || '_' || link.part || '_fkey', link.part, link.target
    );
  end loop;
end
$$;
