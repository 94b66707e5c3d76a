-- Who works on a job: each worker that begins it takes the next number, and whoever holds an older one can write nothing any
-- more. It is a table of its own, since a transaction of the job holds its row for as long as it lasts, while progress is
-- written beside it.
create table job_lease (
  job_id uuid primary key references job on delete cascade,
  number int not null default 0
);
insert into job_lease (job_id) select id from job;
