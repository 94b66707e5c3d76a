-- What the studio as a whole has set: how alike in effect two items are to count as copies, in ΔE00.
create table studio (
  one boolean primary key default true check (one),
  copy_p95 real not null default 0.5 check (copy_p95 > 0),
  copy_max real not null default 2 check (copy_max <= 10),
  check (copy_p95 <= copy_max)
);
insert into studio default values;
