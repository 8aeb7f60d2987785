-- Blocks of a simulated chip as they were last written; what is not here is as it was laid on the bench.
create table simulated_chip_block (
  job_id uuid not null references job on delete cascade,
  n integer not null,
  data bytea not null,
  primary key (job_id, n)
);

-- Sessions at the chip. One at a time on a job; what was kept before the first erase outlasts whatever ends it.
create table flash_session (
  id uuid primary key,
  job_id uuid not null references job on delete cascade,
  -- The tape's last line when it began: it stands for the chip that was on the board then.
  seq integer not null,
  image text not null,
  release text,
  despite jsonb not null,
  backup text,
  stage text not null,
  share real not null default 0,
  stop boolean not null default false,
  ended text,
  say text not null default '',
  begun_at timestamptz not null default now(),
  seen_at timestamptz not null default now()
);
create unique index flash_session_running on flash_session (job_id) where ended is null;
create index flash_session_of_job on flash_session (job_id, begun_at desc);

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on simulated_chip_block, flash_session to needle_app;
  end if;
end
$$;
