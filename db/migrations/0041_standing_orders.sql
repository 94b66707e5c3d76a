-- What stations follow: from standing orders it is told what should lie where, whatever was rolled out so far.
create table standing_order (
  id uuid primary key,
  name text not null check (length(name) between 1 and 120),
  -- in whose eyes self-filling shelves are searched
  author_id uuid not null references person (id),
  -- the house's everyday list
  ribbons boolean not null default false,
  -- profiles and looks that the house has chosen for a client, a camera and a light
  choices boolean not null default false,
  revision integer not null default 1,
  created_at timestamptz not null default now()
);
create unique index standing_order_name on standing_order (lower(name));

create table standing_order_shelf (
  order_id uuid not null references standing_order (id) on delete cascade,
  shelf_id uuid not null references shelf (id) on delete cascade,
  primary key (order_id, shelf_id)
);
create index standing_order_shelf_shelf on standing_order_shelf (shelf_id);

create table standing_order_pack (
  order_id uuid not null references standing_order (id) on delete cascade,
  pack_id uuid not null references pack (id) on delete cascade,
  primary key (order_id, pack_id)
);
create index standing_order_pack_pack on standing_order_pack (pack_id);

create table standing_order_station (
  order_id uuid not null references standing_order (id) on delete cascade,
  station_id uuid not null references station (id) on delete cascade,
  primary key (order_id, station_id)
);
create index standing_order_station_station on standing_order_station (station_id);
