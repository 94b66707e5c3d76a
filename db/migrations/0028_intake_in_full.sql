-- What an arrival made on its way onto the shelves is taken back with it.
alter table arrival
  add column made_shelf_id uuid references shelf on delete set null,
  add column made_licence_id uuid references licence on delete set null;

-- Items also come free of charge, or with an editor.
alter table item drop constraint item_origin_check;
alter table item
  add constraint item_origin_check check (origin in ('house', 'bought', 'free', 'built in', 'measured', 'maker-like'));

-- What was proposed, so that a person's word can be taken back.
alter table arrival_entry
  add column proposed_item_id uuid references item on delete set null,
  add column proposed_entry_id bigint;
update arrival_entry
set proposed_item_id = target_item_id, proposed_entry_id = target_entry_id
where not corrected;
