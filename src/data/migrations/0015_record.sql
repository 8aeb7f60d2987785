-- What each finished job leaves for the record: derived from its tape when it ends, and again whenever that changes.
create table job_record (
  job_id uuid primary key references job (id),
  -- The shape of the record as the code that wrote it knew it.
  shape int not null,
  body jsonb not null
);

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on job_record to needle_app;
  end if;
end $$;

-- What was kept of the odds has no odds of a picture yet: it is computed anew.
update job set belief = null, next_step = null where closed_at is null;
