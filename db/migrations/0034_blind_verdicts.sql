-- Whether who judged knew what was judged.
alter table verdict add column blind boolean not null default false;
