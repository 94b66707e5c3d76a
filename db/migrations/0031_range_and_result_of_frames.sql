-- What a photo is for an item's scope, besides camera data or rendered: its dynamic range, and whether it has any color.
-- Null where nobody said and its file does not tell.
alter table frame
  add column dynamic_range text check (dynamic_range in ('SDR', 'HDR')),
  add column result text check (result in ('color', 'monochrome'));
update frame
set dynamic_range = 'SDR'
where file_kind = 'rendered';
