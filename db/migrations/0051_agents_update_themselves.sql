-- Why an agent could not take the program that its server ships, in its own words; '' where it could, or has none to take.
alter table station add column update_fault text not null default '';
