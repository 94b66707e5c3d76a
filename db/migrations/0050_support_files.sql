-- Support files: what an editor needs beside its items, such as a list of bodies, kept and placed like any item.
alter table item drop constraint item_kind_check;
alter table item add constraint item_kind_check check (
  kind in ('look', 'preset', 'camera-profile', 'icc-profile', 'lens-database', 'add-on', 'support-file')
);
