-- Which of the studio's cameras are used at a station: a camera profile goes where its camera is. None: nobody has said.
create table station_camera (
  station_id uuid not null references station (id) on delete cascade,
  camera_id uuid not null references camera (id) on delete cascade,
  primary key (station_id, camera_id)
);
create index station_camera_camera on station_camera (camera_id);
