-- Up Migration

-- What the tape says is kept now and then as a snapshot; the lines since are folded on. A line costs the same on a long job.
create table job_snapshot (
  job_id uuid primary key references job (id),
  -- The last line it holds, and the shape of the state as the code that wrote it knew it.
  seq int not null,
  shape int not null,
  state jsonb not null
);
alter table job_snapshot alter column state set compression lz4;

-- A board that comes back is told by its serial number.
alter table job add column serial text not null default '';
update job set serial = coalesce(state -> 'ticket' ->> 'serial', '');
drop index job_serial;
create index job_serial on job (serial) where serial <> '' and not practice;
alter table job drop column state;

-- What to do next is slow to compute: it is kept with the line it was computed at.
alter table job add column next_step jsonb;

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on job_snapshot to needle_app;
  end if;
end $$;
