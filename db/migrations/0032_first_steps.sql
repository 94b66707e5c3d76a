-- The first steps of a studio are shown until they are done, or until somebody wants to see them no more.
alter table studio add column steps_hidden boolean not null default false;
