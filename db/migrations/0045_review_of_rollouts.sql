-- Where the studio asks for it, nobody confirms a rollout that they planned themselves.
alter table studio add column second_person boolean not null default false;
